import { calls, serve } from './served';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Plan } from '../../frontend/src/api/client';
import { open } from './opened';

const { plan } = open('harbour-refloat');
const called = (name: string): Plan => ({ ...plan, shoot: { ...plan.shoot, name } });
const left = (shoot: number, name: string, changes: unknown[][] = []) =>
  ({ shoot, version: 3, plan: called(name), changes, name }) as never;

/** A window of its own: its module, with its own name, and the locks of the windows that are open. */
const others: string[] = [];
async function windowAt(name: string | null) {
  vi.resetModules();
  if (name === null) sessionStorage.removeItem('bridle.window');
  else sessionStorage.setItem('bridle.window', name);
  return import('../../frontend/src/sheet/unsaved');
}

beforeEach(() => {
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
  serve(() => 'away');
});

describe('what could not be saved', () => {
  test('is taken up by the window that comes after', async () => {
    (await windowAt('gone')).put(left(7, 'mine'));
    others.length = 0;
    const next = await windowAt('new');
    expect((await next.takeUp(7))!.plan.shoot.name).toBe('mine');
    expect(await next.takeUp(8)).toBe(null);
    // Taken up it is this window's own: should this one go as well, it is still there.
    others.length = 0;
    expect((await (await windowAt('third')).takeUp(7))!.name).toBe('mine');
  });
  test('is left to the window that still has it', async () => {
    (await windowAt('busy')).put(left(7, 'busy with it'));
    const second = await windowAt('second');
    expect(await second.takeUp(7)).toBe(null);
    expect(await second.saveLeftovers(null)).toEqual([]);
    expect(calls).toEqual([]);
  });
  test('is the own again after a reload; a window that was copied takes a new name', async () => {
    (await windowAt('one')).put(left(7, 'before the reload'));
    others.length = 0;
    expect((await (await windowAt('one')).takeUp(7))!.name).toBe('before the reload');
    const copied = await windowAt('one');
    copied.put(left(7, 'in the copy'));
    await copied.takeUp(1);
    expect(sessionStorage.getItem('bridle.window')).not.toBe('one');
  });
  test('is forgotten once it is saved', async () => {
    const here = await windowAt('gone');
    here.put(left(7, 'mine'));
    here.drop(7);
    others.length = 0;
    expect(await (await windowAt('new')).takeUp(7)).toBe(null);
  });
  test('is saved with the changes that had no answer, in their order', async () => {
    const typed = (text: string) => [{ do: 'type', path: 'beat.settle_s', text, imperial: false }];
    (await windowAt('gone')).put(left(7, 'mine', [typed('2'), typed('not a time'), typed('3')]));
    others.length = 0;
    const made: string[] = [];
    serve(({ method, path, body }) => {
      if (method === 'PUT') return [200, { version: 4 }];
      const { text } = (body as { changes: { text: string }[] }).changes[0]!;
      made.push(`${path} ${text}`);
      if (text === 'not a time') return [422, { message: 'no' }];
      return [200, { plan: called(`after ${text}`), evaluation: {} }];
    });
    const next = await windowAt('new');
    expect(await next.saveLeftovers(null)).toEqual([]);
    expect(made).toEqual(['/api/evaluate 2', '/api/evaluate not a time', '/api/evaluate 3']);
    const sent = calls.at(-1)! as unknown as { path: string; body: { version: number; plan: Plan } };
    expect([sent.path, sent.body.version, sent.body.plan.shoot.name]).toEqual([
      '/api/shoots/7',
      3,
      'after 3'
    ]);
    expect(Object.keys(localStorage)).toEqual([]);
  });
  test.each([
    ['somebody else has changed it: both are told, and it stays', 409, 1, 1],
    ['the shoot is gone for good: there is nothing to save it to', 404, 0, 0],
    ['the server has no room: it stays for later', 507, 0, 1]
  ])('%s', async (_, status, two, stays) => {
    (await windowAt('gone')).put(left(7, 'mine'));
    others.length = 0;
    serve(() => [status, { message: 'no' }]);
    const next = await windowAt('new');
    expect((await next.saveLeftovers(null)).length).toBe(two);
    expect(Object.keys(localStorage).length).toBe(stays);
  });
  test('of the shoot that is open is left to its sheet', async () => {
    (await windowAt('gone')).put(left(7, 'mine'));
    others.length = 0;
    expect(await (await windowAt('new')).saveLeftovers(7)).toEqual([]);
    expect(calls).toEqual([]);
  });
  test('in a store that is broken or full is passed over', async () => {
    localStorage.setItem('bridle.unsaved.7.gone', '{ not JSON');
    const next = await windowAt('new');
    expect(await next.takeUp(7)).toBe(null);
    vi.spyOn(localStorage, 'setItem').mockImplementationOnce(() => {
      throw new Error('full');
    });
    expect(() => next.put(left(7, 'mine'))).not.toThrow();
  });
});
