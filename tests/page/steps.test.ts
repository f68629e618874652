import './served';
import { beforeEach, describe, expect, test } from 'vitest';
import { grouped } from '../../frontend/src/chapters/run/told';
import { keepSteps, keptSteps } from '../../frontend/src/sheet/steps';

describe('the steps of undo', () => {
  const step = (n: number, letters = 0) => ({
    edits: [{ path: 'shoot.name', value: `${n}${'x'.repeat(letters)}` }],
    merge: undefined,
    at: n
  });
  const many = (count: number, letters = 0) => Array.from({ length: count }, (_, n) => step(n, letters));
  beforeEach(() => sessionStorage.clear());

  test('come back as they were, each shoot its own', () => {
    keepSteps(3, { version: 7, saved: true, undos: many(2), redos: [step(9).edits] });
    expect(keptSteps(3)).toMatchObject({ version: 7, saved: true, redos: [[{ value: '9' }]] });
    expect(keptSteps(3)!.undos.map(({ at }) => at)).toEqual([0, 1]);
    expect(keptSteps(4)).toBeNull();
  });
  test('are the newest, as many as there is room for', () => {
    keepSteps(3, { version: 1, saved: true, undos: many(200), redos: [] });
    expect(keptSteps(3)!.undos.map(({ at }) => at)).toEqual(Array.from({ length: 60 }, (_, n) => 140 + n));
    keepSteps(3, { version: 1, saved: true, undos: many(200, 20_000), redos: [] });
    const few = keptSteps(3)!.undos;
    expect(few.at(-1)!.at).toBe(199);
    expect(few.length).toBeLessThan(20);
  });
  test('what is no such thing is nothing', () => {
    sessionStorage.setItem('bridle.steps.3', '{');
    expect(keptSteps(3)).toBeNull();
  });
});

describe('the log of a run', () => {
  const event = (kind: string, frame: number | null, number = 0) =>
    ({ number, kind, frame, seconds: null, clock: '' }) as never;

  test('has frames that were only taken in groups, and what went wrong or changed by itself', () => {
    const events = [
      event('start', null),
      ...[0, 1, 2].map((frame) => event('taken', frame)),
      event('late', 3),
      event('taken', 3),
      event('pause', 4),
      event('go on', 4),
      ...[4, 5].map((frame) => event('taken', frame)),
      event('finish', 6)
    ];
    expect(grouped(events).map(({ kind, frame, until }) => [kind, frame, until])).toEqual([
      ['start', null, undefined],
      ['taken', 0, 2],
      ['late', 3, undefined],
      ['taken', 3, undefined],
      ['pause', 4, undefined],
      ['go on', 4, undefined],
      ['taken', 4, 5],
      ['finish', 6, undefined]
    ]);
  });
});
