import { calls, serve, type Answer } from './served';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { CardLine, Changed, Plan } from '../../frontend/src/api/client';
import { RigShelf } from '../../frontend/src/kit/shelf.svelte';
import { Moment } from '../../frontend/src/sheet/moment.svelte';
import { open } from './opened';

const line = (id: number, kind: string) =>
  ({ id, version: id + 1, card: { kind, name: `${kind} ${id}` } }) as unknown as CardLine;
const LINES = [line(1, 'support'), line(2, 'axis'), line(3, 'body'), line(4, 'lens')];
const SHELF: Answer = [200, { cards: LINES, starters: [1, 3], broken: [], in_bin: 0 }];

describe('the shelf beside a rig', () => {
  test('offers a rig to begin with out of what lies there, in the order of the shelf', async () => {
    serve(() => SHELF);
    const shelf = new RigShelf(open('harbour-refloat').sheet);
    expect(shelf.starters).toEqual([]);
    await shelf.look();
    expect(shelf.starters.map(({ id }) => id)).toEqual([1, 3]);
  });
  test('puts cards on as they lie there, with the version they have', () => {
    const { sheet, changes } = open('harbour-refloat');
    new RigShelf(sheet).putOn(LINES.slice(1, 3));
    expect(changes).toEqual([
      {
        do: 'put',
        cards: [
          { card_id: 2, version: 3, card: LINES[1]!.card },
          { card_id: 3, version: 4, card: LINES[2]!.card }
        ]
      }
    ]);
  });
  test('from nothing it is filled with what a rig needs, and the rig put together', async () => {
    const { sheet, changes } = open('harbour-refloat');
    const shelf = new RigShelf(sheet);
    serve(() => SHELF);
    await shelf.usual();
    expect(calls.map(({ method, path }) => [method, path])).toEqual([['POST', '/api/kit/usual?kind=slide']]);
    expect((changes[0] as unknown as { cards: unknown[] }).cards.length).toBe(2);
    expect(shelf.making).toBe(false);
    serve(() => [507, { message: 'The disk is full.' }]);
    await shelf.usual();
    expect([shelf.trouble, shelf.making, changes.length]).toEqual(['The disk is full.', false, 1]);
  });

  describe('compares', () => {
    const changed = (key: string) =>
      ({ key, copy_now: { key, card: { name: 'newer' } } }) as unknown as Changed;
    const withCards = () => {
      const shoot = open('harbour-refloat');
      const { copies } = shoot.plan.kit;
      copies[0]!.card_id = 7;
      return { ...shoot, key: copies[0]!.key };
    };
    test('the copies with what lies there now, and takes over just the one that is asked for', async () => {
      const { sheet, plan, changes, key } = withCards();
      serve(() => [200, { changed: [changed(key)] }]);
      const shelf = new RigShelf(sheet);
      await shelf.compare(plan);
      expect(shelf.changed.map((change) => change.key)).toEqual([key]);
      shelf.takeOver(shelf.changed[0]!);
      const [fit] = changes as unknown as { do: string; copies: { key: string; card: object }[] }[];
      expect(fit!.do).toBe('fit');
      expect(fit!.copies.map((copy) => copy.key)).toEqual(plan.kit.copies.map((copy) => copy.key));
      expect(fit!.copies[0]!.card).toEqual({ name: 'newer' });
      expect(fit!.copies.slice(1)).toEqual(plan.kit.copies.slice(1));
    });
    test('nothing where no copy came from a card, and forgets what it offered', async () => {
      const { sheet, plan, key } = withCards();
      serve(() => [200, { changed: [changed(key)] }]);
      const shelf = new RigShelf(sheet);
      await shelf.compare(plan);
      const asked = calls.length;
      await shelf.compare({
        ...plan,
        kit: { copies: plan.kit.copies.map((copy) => ({ ...copy, card_id: null })) }
      });
      expect([shelf.changed, calls.length]).toEqual([[], asked]);
    });
    test('offers nothing for a plan that has changed meanwhile, nor when the server is away', async () => {
      const { sheet, plan, key } = withCards();
      serve(() => [200, { changed: [changed(key)] }]);
      const shelf = new RigShelf(sheet);
      const meanwhile = structuredClone(plan);
      meanwhile.kit.copies[0]!.version += 1;
      await shelf.compare(meanwhile);
      expect(shelf.changed).toEqual([]);
      serve(() => 'away');
      await shelf.compare(plan);
      expect([shelf.changed, shelf.trouble]).toEqual([[], '']);
    });
  });
});

describe('the figures at the playhead', () => {
  const { plan } = open('harbour-refloat');
  const figure = (value: number) => ({ key: 'read.frame', label: 'frame', value, unit: '', terms: [] });
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());

  test('are asked for when it rests, and only for where it rests', async () => {
    serve(({ body }) => [200, { figures: [figure((body as { frame: number }).frame)] }]);
    const moment = new Moment();
    for (const frame of [3, 4, 5]) {
      moment.look(plan, frame);
      await vi.advanceTimersByTimeAsync(80);
    }
    expect(calls).toEqual([]);
    await vi.advanceTimersByTimeAsync(100);
    expect(calls.map(({ body }) => (body as { frame: number }).frame)).toEqual([5]);
    expect(moment.figures['read.frame']!.value).toBe(5);
  });
  test('are those of the latest place, though an earlier answer comes later', async () => {
    serve(async ({ body }) => {
      const { frame } = body as { frame: number };
      await new Promise((go) => setTimeout(go, frame === 1 ? 900 : 10));
      return [200, { figures: [figure(frame)] }];
    });
    const moment = new Moment();
    moment.look(plan, 1);
    await vi.advanceTimersByTimeAsync(200);
    moment.look(plan, 2);
    await vi.advanceTimersByTimeAsync(2000);
    expect(moment.figures['read.frame']!.value).toBe(2);
  });
  test('are none where nobody can be asked; a late failure takes nothing away', async () => {
    let away = true;
    serve(async ({ body }) => {
      const { frame } = body as { frame: number };
      if (frame === 1) await new Promise((go) => setTimeout(go, 900));
      return frame === 1 || away ? 'away' : [200, { figures: [figure(frame)] }];
    });
    const moment = new Moment();
    moment.look({ ...plan } as Plan, 3);
    await vi.advanceTimersByTimeAsync(300);
    expect(moment.figures).toEqual({});
    away = false;
    moment.look(plan, 1);
    await vi.advanceTimersByTimeAsync(200);
    moment.look(plan, 2);
    await vi.advanceTimersByTimeAsync(2000);
    expect(moment.figures['read.frame']!.value).toBe(2);
  });
});
