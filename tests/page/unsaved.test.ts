import { calls, serve, type Answer } from './served';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Plan } from '../../frontend/src/api/client';
import { open } from './opened';

const { plan } = open('harbour-refloat');
const called = (name: string): Plan => ({ ...plan, shoot: { ...plan.shoot, name } });
const left = (shoot: number, name: string, changes: unknown[][] = [], more: object = {}) =>
  ({
    shoot,
    identity: `of${shoot}`,
    data: 'here',
    version: 3,
    plan: called(name),
    changes,
    name,
    ...more
  }) as never;
const of = (id: number, data = 'here') => ({ id, identity: `of${id}`, data });

/** A window of its own: its module, with its own name, and the locks of the windows that are open. */
const others: string[] = [];
async function windowAt(name: string | null) {
  vi.resetModules();
  if (name === null) sessionStorage.removeItem('bridle.window');
  else sessionStorage.setItem('bridle.window', name);
  return import('../../frontend/src/sheet/unsaved');
}

/** A window that kept something and is gone. */
async function gone(name: string, kept: never): Promise<void> {
  const here = await windowAt(name);
  await here.takeUp({ id: 0, identity: 'none', data: 'here' });
  here.put(kept);
  others.length = 0;
}

/** The server: shoot n is the shoot of n, any plan is one of today's, and a save is answered so. */
const server =
  (saved: Answer = [200, { version: 4 }], found: Answer = [200, { id: 7 }]) =>
  ({ method, path, body }: { method: string; path: string; body: never }): Answer => {
    if (path === '/api/house') return [200, { identity: 'here', jumped: null }];
    if (path === '/api/plans/upgrade') return [200, { plan: body, changed: [] }];
    if (path.startsWith('/api/shoots-by-identity/')) return found;
    if (method === 'PUT') return saved;
    const { text } = (body as { changes: { text: string }[] }).changes[0]!;
    if (text === 'not a time') return [422, { message: 'no' }];
    return [200, { plan: called(`after ${text}`), evaluation: {} }];
  };
const keys = () => Object.keys(localStorage);
const saves = () => calls.filter(({ method }) => method === 'PUT');

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  sessionStorage.clear();
  others.length = 0;
  vi.stubGlobal('navigator', {
    locks: {
      request: (name: string, _how: unknown, take: (lock: object | null) => unknown) => {
        const free = !others.includes(name);
        take(free ? { name } : null);
        if (free) others.push(name);
      },
      query: () => Promise.resolve({ held: others.map((name) => ({ name })) })
    }
  });
  serve(server());
});

describe('what could not be saved', () => {
  test('is taken up by the window that comes after', async () => {
    await gone('gone', left(7, 'mine'));
    const next = await windowAt('new');
    expect((await next.takeUp(of(7)))!.plan.shoot.name).toBe('mine');
    expect(await next.takeUp(of(8))).toBe(null);
    // Taken up it is this window's own: should this one go as well, it is still there.
    others.length = 0;
    expect((await (await windowAt('third')).takeUp(of(7)))!.name).toBe('mine');
  });
  test('is left to the window that still has it', async () => {
    (await windowAt('busy')).put(left(7, 'busy with it'));
    const second = await windowAt('second');
    expect(await second.takeUp(of(7))).toBe(null);
    expect(await second.saveLeftovers(null)).toEqual([]);
    expect(saves()).toEqual([]);
  });
  test('is the own again after a reload; a window that was copied takes a new name', async () => {
    await gone('one', left(7, 'before the reload'));
    expect((await (await windowAt('one')).takeUp(of(7)))!.name).toBe('before the reload');
    const copied = await windowAt('one');
    await copied.takeUp(of(1));
    copied.put(left(7, 'in the copy'));
    expect(sessionStorage.getItem('bridle.window')).not.toBe('one');
    expect(keys().length).toBe(2);
  });
  test('is forgotten once it is saved', async () => {
    const here = await windowAt('gone');
    here.put(left(7, 'mine'));
    here.drop('of7');
    others.length = 0;
    expect(await (await windowAt('new')).takeUp(of(7))).toBe(null);
  });
  test('is saved with the changes that had no answer, in their order, to the number that the shoot has now', async () => {
    const typed = (text: string) => [{ do: 'type', path: 'beat.settle_s', text, imperial: false }];
    await gone('gone', left(7, 'mine', [typed('2'), typed('not a time'), typed('3')]));
    serve(server([200, { version: 4 }], [200, { id: 19 }]));
    const next = await windowAt('new');
    expect(await next.saveLeftovers(null)).toEqual([]);
    const [sent] = saves() as unknown as [{ path: string; body: { version: number; plan: Plan } }];
    expect([sent.path, sent.body.version, sent.body.plan.shoot.name]).toEqual([
      '/api/shoots/19',
      3,
      'after 3'
    ]);
    expect(sent.body).toMatchObject({ identity: 'of7' });
    expect(keys()).toEqual([]);
  });
});

describe('what cannot be put back by itself is shown, and stays', () => {
  const answers: [string, Answer | undefined, Answer | undefined, object, string][] = [
    ['somebody else has changed it', [409, { message: 'no' }], undefined, {}, 'two'],
    ['the shoot is gone for good', undefined, [404, { message: 'no' }], {}, 'gone'],
    ['its number is another shoot’s by now', [404, { message: 'no' }], undefined, {}, 'gone'],
    ['it belongs to other data', undefined, undefined, { data: 'elsewhere' }, 'elsewhere'],
    ['an older page kept it, nobody knows where', undefined, undefined, { identity: undefined }, 'elsewhere'],
    ['its plan is refused', [422, { message: 'no' }], undefined, {}, 'refused']
  ];
  test.each(answers)('%s', async (_, saved, found, more, why) => {
    await gone('gone', left(7, 'mine', [], more));
    serve(server(saved, found));
    const next = await windowAt('new');
    const [shown] = await next.saveLeftovers(null);
    expect(shown!.why).toBe(why);
    expect(keys().length).toBe(1);
    expect((JSON.parse(next.asFile(shown!)) as Plan).shoot.name).toBe('mine');
    next.forget(shown!);
    expect(keys()).toEqual([]);
  });
  test('a plan of a form that the server does not know', async () => {
    await gone('gone', left(7, 'mine'));
    serve((call) =>
      call.path === '/api/plans/upgrade' ? [422, { message: 'written by a newer Bridle' }] : server()(call)
    );
    const next = await windowAt('new');
    expect(await next.takeUp(of(7))).toBe(null);
    expect((await next.saveLeftovers(null))[0]).toMatchObject({
      why: 'refused',
      said: expect.stringContaining('newer')
    });
    expect(keys().length).toBe(1);
  });
  test('it becomes a shoot of its own, and only then it is gone', async () => {
    await gone('gone', left(7, 'mine', [], { data: 'elsewhere' }));
    const next = await windowAt('new');
    const [shown] = await next.saveLeftovers(null);
    serve(() => [422, { message: 'no' }]);
    await expect(next.asShoot(shown!)).rejects.toMatchObject({ message: 'no' });
    expect(keys().length).toBe(1);
    serve(() => [201, { id: 31 }]);
    expect(await next.asShoot(shown!)).toBe(31);
    expect((calls[0] as unknown as { body: Plan }).body.shoot.name).toBe('mine, not saved before');
    expect(keys()).toEqual([]);
  });
  test('of two windows neither is thrown away: the newer is put back, the other is shown', async () => {
    vi.useFakeTimers({ toFake: ['Date'] });
    await gone('first', left(7, 'older'));
    vi.advanceTimersByTime(1000);
    await gone('second', left(7, 'newer'));
    vi.useRealTimers();
    const next = await windowAt('new');
    expect((await next.takeUp(of(7)))!.plan.shoot.name).toBe('newer');
    const shown = await next.saveLeftovers('of7');
    expect(shown.map(({ why, unsaved }) => [why, unsaved.name])).toEqual([['second', 'older']]);
    expect(saves()).toEqual([]);
    // The same work in both is no second one.
    localStorage.clear();
    others.length = 0;
    await gone('third', left(7, 'same'));
    await gone('fourth', left(7, 'same'));
    expect((await (await windowAt('new')).takeUp(of(7)))!.name).toBe('same');
    expect(keys().length).toBe(1);
  });
});

test('what is left of the shoot that is open belongs to its sheet', async () => {
  await gone('gone', left(7, 'mine'));
  expect(await (await windowAt('new')).saveLeftovers('of7')).toEqual([]);
  // So it does while that is still on its way, and only its number is known.
  expect(await (await windowAt('other')).saveLeftovers(null, 7)).toEqual([]);
  expect(saves()).toEqual([]);
});

test('a server without room, or away, is waited for', async () => {
  await gone('gone', left(7, 'mine'));
  serve(server([507, { message: 'full' }]));
  expect(await (await windowAt('new')).saveLeftovers(null)).toEqual([]);
  serve(() => 'away');
  await expect((await windowAt('other')).saveLeftovers(null)).rejects.toThrow(/cannot be reached/);
  expect(keys().length).toBe(1);
});

test('a store that is broken, full or closed ends nothing, and it is told that nothing is kept', async () => {
  localStorage.setItem('bridle.unsaved.of7.gone', '{ not JSON');
  const next = await windowAt('new');
  expect(await next.takeUp(of(7))).toBe(null);
  vi.spyOn(localStorage, 'setItem').mockImplementation(() => {
    throw new Error('full');
  });
  expect(next.put(left(7, 'mine'))).toBe(false);
  const closed = () => {
    throw new DOMException('denied', 'SecurityError');
  };
  const [local, session] = [localStorage, sessionStorage];
  for (const name of ['localStorage', 'sessionStorage'])
    Object.defineProperty(globalThis, name, { get: closed, configurable: true });
  try {
    vi.resetModules();
    const shut = await import('../../frontend/src/sheet/unsaved');
    expect([shut.put(left(7, 'mine')), await shut.takeUp(of(7))]).toEqual([false, null]);
  } finally {
    vi.stubGlobal('localStorage', local);
    vi.stubGlobal('sessionStorage', session);
  }
});
