import { calls, serve, type Answer } from './served';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Change, Edit, Opened, Plan } from '../../frontend/src/api/client';
import { valueAt } from '../../frontend/src/parts/paths';
import { Sheet } from '../../frontend/src/sheet/sheet.svelte';
import { open } from './opened';

const { plan: first, evaluation } = open('harbour-refloat');

function put(plan: Plan, edits: readonly Edit[]): { plan: Plan; undo: Edit[] } {
  const made = structuredClone(plan);
  const undo = edits.map(({ path }) => ({ path, value: structuredClone(valueAt(plan, path)) }) as Edit);
  for (const { path, value } of edits) {
    const way = path.split('.');
    const last = way.pop()!;
    (valueAt(made, way.join('.')) as Record<string, unknown>)[last] = value;
  }
  return { plan: made, undo: undo.reverse() };
}

/** The server as the sheet knows it: makes changes, refuses what cannot be read, keeps what is saved. */
function server() {
  const kept = { version: 1, plan: first, away: false, slow: 0 };
  const edits = (change: Change): Edit[] => {
    if (change.do === 'edits') return change.edits;
    if (change.do === 'set') return [{ path: change.path, value: change.value }] as Edit[];
    return change.do === 'type' ? [{ path: change.path, value: change.text }] : [];
  };
  const evaluate = (path: string, body: { plan: Plan; changes: Change[] }): Answer => {
    if (body.changes.some((change) => change.do === 'type' && change.text === 'soon'))
      return [422, { message: 'no', problems: [{ path: '', stood: 'soon', expected: 'a time such as 20' }] }];
    const { plan, undo } = put(body.plan, body.changes.flatMap(edits));
    const told = { ...evaluation, figures: { named: { label: plan.shoot.name, value: 1, unit: '' } } };
    if (path === '/api/drag') return [200, { plan, undo, brief: { ...told, aside: [] } }];
    return [200, { plan, undo, evaluation: told }];
  };
  serve(async ({ method, path, body }) => {
    if (kept.slow) await new Promise((go) => setTimeout(go, kept.slow));
    if (kept.away) return 'away';
    if (path === '/api/evaluate' || path === '/api/drag') return evaluate(path, body);
    if (path === '/api/plans/upgrade') return [200, { plan: body, changed: [] }];
    if (method === 'PUT') {
      kept.version += 1;
      kept.plan = (body as { plan: Plan }).plan;
      return [200, { version: kept.version }];
    }
    if (path.endsWith('/back')) return [200, { edits: [{ path: 'shoot.name', value: 'as it was' }] }];
    return [200, { version: 3, plan: put(first, [{ path: 'shoot.name', value: 'once' }]).plan, evaluation }];
  });
  return kept;
}

const opened = () =>
  ({
    id: 7,
    identity: 'of7',
    data: 'here',
    version: 1,
    plan: structuredClone(first),
    evaluation
  }) as unknown as Opened;

let kept: ReturnType<typeof server>;
let sheet: Sheet;
const settle = (p: string) => valueAt(sheet.plan, p);
const SETTLE = 'beat.settle_s';

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  kept = server();
  sheet = new Sheet(opened());
});
afterEach(async () => {
  sheet.close();
  await vi.advanceTimersByTimeAsync(0);
  vi.useRealTimers();
});

describe('a sheet', () => {
  test('makes changes one after another, each on what the one before has left', async () => {
    kept.slow = 50;
    const both = [sheet.set(SETTLE, '2'), sheet.set('beat.lag_s', '0.3'), sheet.set('shoot.name', 'both')];
    expect(sheet.unsettled).toBe(true);
    await vi.advanceTimersByTimeAsync(200);
    expect(await Promise.all(both)).toEqual([true, true, true]);
    expect([settle(SETTLE), settle('beat.lag_s'), settle('shoot.name')]).toEqual(['2', '0.3', 'both']);
    expect(sheet.figure('named')).toMatchObject({ key: 'named', label: 'both' });
    await vi.advanceTimersByTimeAsync(1000);
    expect([kept.plan.shoot.name, sheet.unsettled, kept.version]).toEqual(['both', false, 2]);
  });

  test('undoes them in turn and does them again, however quickly it is asked', async () => {
    const stood = settle(SETTLE);
    for (const text of ['2', '3', '4']) await sheet.type(SETTLE, text);
    void sheet.undo();
    void sheet.undo();
    await vi.advanceTimersByTimeAsync(50);
    expect([settle(SETTLE), sheet.undos.length, sheet.redos.length]).toEqual(['2', 1, 2]);
    await sheet.undo();
    expect(settle(SETTLE)).toBe(stood);
    expect(await sheet.undo()).toBe(false);
    void sheet.redo();
    void sheet.redo();
    await vi.advanceTimersByTimeAsync(50);
    expect(settle(SETTLE)).toBe('3');
    await sheet.set(SETTLE, '9');
    expect([await sheet.redo(), settle(SETTLE)]).toEqual([false, '9']);
  });

  test('goes back two hundred steps, the newest of all that were made', async () => {
    for (let n = 1; n <= 203; n += 1) await sheet.set(SETTLE, String(n));
    expect([sheet.undos.length, settle(SETTLE)]).toEqual([200, '203']);
    for (let n = 202; n >= 201; n -= 1) {
      await sheet.undo();
      expect(settle(SETTLE)).toBe(String(n));
    }
    expect(sheet.undos.length).toBe(198);
  }, 30_000);

  test('counts a drag as one step, sends the last place only, and two drags as two', async () => {
    const stood = settle(SETTLE);
    kept.slow = 40;
    for (const value of ['1', '2', '3', '4']) void sheet.set(SETTLE, value, 'drag-1');
    await vi.advanceTimersByTimeAsync(300);
    expect(calls.filter(({ path }) => path === '/api/evaluate').length).toBe(2);
    expect([settle(SETTLE), sheet.undos.length]).toEqual(['4', 1]);
    void sheet.set(SETTLE, '8', 'drag-2');
    await vi.advanceTimersByTimeAsync(100);
    expect(sheet.undos.length).toBe(2);
    kept.slow = 0;
    await sheet.undo();
    await sheet.undo();
    expect(settle(SETTLE)).toBe(stood);
  });

  test('the same drag taken up after a while is a step of its own', async () => {
    await sheet.set(SETTLE, '1', 'knob');
    await vi.advanceTimersByTimeAsync(400);
    await sheet.set(SETTLE, '2', 'knob');
    await vi.advanceTimersByTimeAsync(1600);
    await sheet.set(SETTLE, '3', 'knob');
    expect(sheet.undos.length).toBe(2);
    await sheet.undo();
    expect(settle(SETTLE)).toBe('2');
  });

  test('asks briefly while something is dragged, and for the whole answer when the hand rests', async () => {
    sheet.brief = true;
    for (const value of ['1', '2', '3']) await sheet.set(SETTLE, value, 'drag');
    expect(calls.map(({ path }) => path)).toEqual(['/api/drag', '/api/drag', '/api/drag']);
    await vi.advanceTimersByTimeAsync(100);
    await sheet.set(SETTLE, '4', 'drag');
    await vi.advanceTimersByTimeAsync(149);
    expect(calls.filter(({ path }) => path === '/api/evaluate').length).toBe(0);
    await vi.advanceTimersByTimeAsync(10);
    const looked = calls.filter(({ path }) => path === '/api/evaluate');
    expect(looked.map(({ body }) => (body as { changes: [] }).changes)).toEqual([[]]);
    expect(sheet.undos.length).toBe(1);
    await sheet.set('beat.lag_s', '1');
    expect(calls.at(-1)!.path).toBe('/api/evaluate');
  });

  test('says at its place what cannot be read, and nothing else is touched', async () => {
    const stood = sheet.plan;
    expect(await sheet.type(SETTLE, 'soon')).toBe(false);
    expect([...sheet.troubles]).toEqual([[SETTLE, 'Expected a time such as 20.']]);
    expect([sheet.plan, sheet.undos.length]).toEqual([stood, 0]);
    await sheet.type(SETTLE, '2');
    expect(sheet.troubles.size).toBe(0);
  });

  test('changes that meet are both made: what one put into a list the other leaves there', async () => {
    kept.slow = 30;
    const seen = sheet.plan.move.marks;
    const added = { ...seen[0]!, name: 'new' };
    void sheet.put('move.marks', [...seen, added]);
    void sheet.put('move.marks', seen.slice(1));
    await vi.advanceTimersByTimeAsync(200);
    expect(sheet.plan.move.marks.map(({ name }) => name)).toEqual([
      ...seen.slice(1).map(({ name }) => name),
      'new'
    ]);
  });

  test('waits for a server that is away, tells so, and keeps what was asked in the browser', async () => {
    kept.away = true;
    const set = sheet.set(SETTLE, '5');
    await vi.advanceTimersByTimeAsync(100);
    expect(sheet.offline).toMatch(/cannot be reached/);
    const left = JSON.parse(Object.values(localStorage)[0] as string);
    expect(left).toMatchObject({ shoot: 7, version: 1, changes: [[{ path: SETTLE, value: '5' }]] });
    kept.away = false;
    await vi.advanceTimersByTimeAsync(1600);
    expect([await set, settle(SETTLE), sheet.offline]).toEqual([true, '5', '']);
    await vi.advanceTimersByTimeAsync(1000);
    expect(Object.keys(localStorage)).toEqual([]);
  });

  test('left while the server is away it keeps what was asked for, and the next one makes it', async () => {
    kept.away = true;
    void sheet.set(SETTLE, '6');
    void sheet.set('beat.lag_s', '2');
    await vi.advanceTimersByTimeAsync(100);
    sheet.leave();
    sheet.close();
    await vi.advanceTimersByTimeAsync(3000);
    kept.away = false;
    sheet = new Sheet(opened());
    void sheet.takeUp();
    await vi.advanceTimersByTimeAsync(3000);
    expect([settle(SETTLE), settle('beat.lag_s')]).toEqual(['6', '2']);
    expect(sheet.said).toMatch(/brought back/);
    expect(kept.plan.beat.settle_s).toBe('6');
  });
});

describe('a drag', () => {
  test('is one step of undo however long it paused; arrow keys are, while they come soon', async () => {
    const stood = settle('shoot.name');
    for (const name of ['a', 'b', 'c']) {
      await sheet.set('shoot.name', name, 'drag the name 1');
      await vi.advanceTimersByTimeAsync(60_000);
    }
    expect(sheet.undos.length).toBe(1);
    await sheet.undo();
    expect(settle('shoot.name')).toBe(stood);
    for (const name of ['a', 'b']) {
      await sheet.set('shoot.name', name, 'key the name');
      await vi.advanceTimersByTimeAsync(60_000);
    }
    expect(sheet.undos.length).toBe(2);
  });
});

describe('a browser that keeps nothing', () => {
  test('is told of, and so is a save to a shoot that has another identity', async () => {
    kept.away = true;
    vi.spyOn(localStorage, 'setItem').mockImplementation(() => {
      throw new Error('full');
    });
    void sheet.set(SETTLE, '5');
    await vi.advanceTimersByTimeAsync(100);
    expect([sheet.keeps, sheet.offline !== '']).toEqual([false, true]);
    vi.restoreAllMocks();
    kept.away = false;
    await vi.advanceTimersByTimeAsync(4000);
    expect([sheet.keeps, sheet.saving.state]).toEqual([true, 'saved']);
  });
});

describe('how it stood once', () => {
  test('is looked at without changing or saving anything, and left again', async () => {
    await sheet.set('shoot.name', 'now');
    await sheet.lookAt(3);
    expect([settle('shoot.name'), sheet.then!.version]).toEqual(['once', 3]);
    expect(await sheet.set(SETTLE, '9')).toBe(false);
    expect(sheet.said).toMatch(/how it stood once/);
    await vi.advanceTimersByTimeAsync(2000);
    expect(kept.plan.shoot.name).toBe('now');
    await sheet.lookAt(null);
    expect([settle('shoot.name'), sheet.then]).toEqual(['now', undefined]);
  });
  test('is brought back as one change, which can be undone', async () => {
    await sheet.set('shoot.name', 'now');
    await sheet.lookAt(3);
    expect(await sheet.bringBack(3)).toBe(true);
    expect(settle('shoot.name')).toBe('as it was');
    await sheet.undo();
    expect(settle('shoot.name')).toBe('now');
  });
});

describe('somebody else’s version', () => {
  test('is taken, and mine can be had back with undo', async () => {
    await sheet.set('shoot.name', 'mine');
    const theirs = put(first, [{ path: 'shoot.name', value: 'theirs' }]).plan;
    sheet.saving.stale = {
      message: '',
      kept: { version: 9, plan: theirs, evaluation },
      differences: [{ path: 'shoot.name', value: 'mine' }]
    } as never;
    sheet.saving.state = 'stale';
    await sheet.takeTheirs();
    expect([settle('shoot.name'), sheet.saving.state, sheet.saving.version]).toEqual(['theirs', 'saved', 9]);
    await sheet.undo();
    expect(settle('shoot.name')).toBe('mine');
  });
});
