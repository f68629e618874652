import { calls, serve, type Answer } from './served';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Plan } from '../../frontend/src/api/client';
import { Saving } from '../../frontend/src/sheet/saving.svelte';
import { open } from './opened';

const { plan: first } = open('harbour-refloat');
const named = (name: string): Plan => ({ ...first, shoot: { ...first.shoot, name } });

/** A shoot as the server keeps it: refuses what was changed from an older version than its own. */
function kept() {
  const shelf = { version: 1, plan: first as Plan, saves: 0 };
  const put = (body: { version: number; plan: Plan }): Answer => {
    if (body.version !== shelf.version && JSON.stringify(body.plan) !== JSON.stringify(shelf.plan))
      return [409, { message: 'Changed elsewhere.', kept: { version: shelf.version, plan: shelf.plan } }];
    shelf.version += 1;
    shelf.saves += 1;
    shelf.plan = body.plan;
    return [200, { version: shelf.version }];
  };
  return { shelf, put };
}

describe('a plan saves itself', () => {
  let plan: Plan;
  let saving: Saving;
  let changed: number;
  const type = (name: string) => {
    plan = named(name);
    saving.soon();
  };
  beforeEach(() => {
    vi.useFakeTimers();
    plan = first;
    changed = 0;
    saving = new Saving(
      { id: 7, identity: 'of7', version: 1 },
      () => plan,
      () => (changed += 1)
    );
  });
  afterEach(() => vi.useRealTimers());

  test('once the hand rests, with what stands then, and with the token', async () => {
    const { shelf, put } = kept();
    serve(({ body }) => put(body));
    for (const name of ['a', 'ab', 'abc']) {
      type(name);
      await vi.advanceTimersByTimeAsync(300);
    }
    expect([shelf.saves, saving.state]).toEqual([0, 'saving']);
    await vi.advanceTimersByTimeAsync(200);
    expect([shelf.saves, saving.state, saving.version]).toEqual([1, 'saved', 2]);
    expect(shelf.plan.shoot.name).toBe('abc');
    expect(calls.map(({ method, path, csrf }) => [method, path, csrf])).toEqual([
      ['PUT', '/api/shoots/7', 't0ken']
    ]);
    expect(changed).toBeGreaterThan(3);
  });

  test('nothing is sent where nothing has changed', async () => {
    serve(() => 'away');
    expect(await saving.now()).toBe(true);
    expect(await saving.settle()).toBe(true);
    expect(calls).toEqual([]);
  });

  test('what is changed while a save is under way is saved after it', async () => {
    const { shelf, put } = kept();
    let answer = () => {};
    serve(async ({ body }) => {
      if (shelf.saves === 0) await new Promise<void>((go) => (answer = go));
      return put(body);
    });
    type('first');
    await vi.advanceTimersByTimeAsync(450);
    type('second');
    await vi.advanceTimersByTimeAsync(1000);
    expect(calls.length).toBe(1);
    answer();
    await vi.advanceTimersByTimeAsync(1000);
    expect(shelf.plan.shoot.name).toBe('second');
    expect([saving.state, saving.version, shelf.saves]).toEqual(['saved', 3, 2]);
  });

  test('a server that is away is asked again until it is back', async () => {
    const { shelf, put } = kept();
    let there = false;
    serve(({ body }) => (there ? put(body) : 'away'));
    type('kept in the end');
    await vi.advanceTimersByTimeAsync(500);
    expect(saving.state).toBe('waiting');
    expect(saving.trouble).toMatch(/cannot be reached/);
    expect(await saving.settle()).toBe(false);
    there = true;
    await vi.advanceTimersByTimeAsync(2600);
    expect([saving.state, shelf.plan.shoot.name]).toEqual(['saved', 'kept in the end']);
  });

  test('an answer that was lost is no quarrel with oneself', async () => {
    const { shelf, put } = kept();
    serve(({ body }) => {
      const answer = put(body);
      return shelf.saves === 1 && calls.length === 1 ? 'away' : answer;
    });
    type('kept, and nobody knows');
    await vi.advanceTimersByTimeAsync(500);
    expect([saving.state, shelf.version]).toEqual(['waiting', 2]);
    type('newer');
    await vi.advanceTimersByTimeAsync(5000);
    expect([saving.state, shelf.plan.shoot.name]).toEqual(['saved', 'newer']);
    expect(saving.stale).toBe(null);
  });

  test('a full disk is waited for, a plan that cannot be is refused in words', async () => {
    serve(() => [507, { message: 'The disk is full.' }]);
    type('too much');
    await vi.advanceTimersByTimeAsync(500);
    expect([saving.state, saving.trouble]).toEqual(['waiting', 'The disk is full.']);
    serve(() => [422, { message: 'A plan needs a name.' }]);
    await vi.advanceTimersByTimeAsync(2600);
    expect([saving.state, saving.trouble]).toEqual(['refused', 'A plan needs a name.']);
    expect(await saving.settle()).toBe(false);
    const { put } = kept();
    serve(({ body }) => put(body));
    type('named');
    await vi.advanceTimersByTimeAsync(500);
    expect(saving.state).toBe('saved');
  });

  describe('and where somebody else has saved', () => {
    let shelf: ReturnType<typeof kept>['shelf'];
    beforeEach(async () => {
      const made = kept();
      shelf = made.shelf;
      serve(({ method, body }) => (method === 'PUT' ? made.put(body) : [201, { id: 12 }]));
      shelf.version = 4;
      shelf.plan = named('theirs');
      type('mine');
      await vi.advanceTimersByTimeAsync(500);
    });

    test('both are told, and nothing is overwritten by itself', async () => {
      expect(saving.state).toBe('stale');
      expect(saving.stale!.kept.version).toBe(4);
      type('mine still');
      await vi.advanceTimersByTimeAsync(60_000);
      expect(shelf.plan.shoot.name).toBe('theirs');
      expect(calls.length).toBe(1);
      expect(await saving.settle()).toBe(false);
    });
    test('mine is kept over it where I say so', async () => {
      await saving.keepMine();
      expect([saving.state, saving.version, shelf.plan.shoot.name]).toEqual(['saved', 5, 'mine']);
    });
    test('theirs is taken over, and the next change starts from it', async () => {
      plan = shelf.plan;
      saving.tookTheirs(plan);
      expect([saving.state, saving.version]).toEqual(['saved', 4]);
      expect(await saving.now()).toBe(true);
      type('after theirs');
      await vi.advanceTimersByTimeAsync(500);
      expect([shelf.version, shelf.plan.shoot.name]).toEqual([5, 'after theirs']);
    });
    test('both are kept: mine as a shoot of its own, with a name that still fits', async () => {
      plan = named('x'.repeat(120));
      expect(await saving.keepBoth()).toBe(12);
      const sent = calls.at(-1)!.body as Plan;
      expect([calls.at(-1)!.path, sent.shoot.name]).toEqual([
        '/api/shoots/import',
        `${'x'.repeat(100)}, my version`
      ]);
      expect(shelf.plan.shoot.name).toBe('theirs');
    });
  });
});
