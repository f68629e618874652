import { describe, expect, it } from 'vitest';
import type { ChangeLine, SchoolLight } from '../../frontend/src/drawings/light/geometry';
import {
  band,
  nextAfter,
  reachOf,
  ruled,
  setAt,
  steps,
  treads
} from '../../frontend/src/drawings/light/geometry';
import { brightAt, isExposed } from '../../frontend/src/drawings/finder/pose';
import { countdown, dueAt, setsOf } from '../../frontend/src/screens/dark';
import { beatAt } from '../../frontend/src/sheet/beat';

const change = (frame: number, moved: string[], more: Partial<ChangeLine> = {}): ChangeLine => ({
  frame,
  moment: 1000 + frame * 10,
  shutter_s: 0.5,
  iso: 100,
  aperture: 8,
  density: 0,
  moved,
  ...more
});
const LIST = [change(0, []), change(6, ['shutter'], { shutter_s: 1 }), change(9, ['iso'], { iso: 200 })];
const FLIGHT: SchoolLight['flight'] = { frames: [0, 6], ev: [8, 7] };
const TRACES = { map: { frames: [0, 10], elapsed_s: [0, 100] }, axes: {} };

describe('the flight of settings', () => {
  const flight = treads(FLIGHT, TRACES, 100);

  it('has treads as long as a setting holds', () => {
    expect(flight).toEqual([
      { from: 0, to: 60, ev: 8 },
      { from: 60, to: 100, ev: 7 }
    ]);
  });

  it('is drawn as steps, and the band around it closes', () => {
    const [x, y] = [(s: number) => s * 2, (ev: number) => 100 - ev * 10];
    expect(steps(flight, x, y)).toBe('M0.0 20.0H120.0V30.0H200.0');
    expect(steps(flight, x, y, 2)).toBe('M0.0 0.0H120.0V10.0H200.0');
    expect(band(flight, x, y, 2, 4)).toBe('M0.0 0.0H120.0V10.0H200.0L200.0 70.0H120.0V60.0H0.0Z');
    expect(band([], x, y, 2, 4)).toBe('');
  });

  it('fits into a scale with room around it, in whole exposure values', () => {
    expect(reachOf([3, 9.2])).toEqual([1, 11]);
    expect(reachOf([5])).toEqual([2, 8]);
    expect(reachOf([])).toEqual([-4, 14]);
    expect(ruled([-4, 12]).every((ev) => Number.isInteger(ev))).toBe(true);
  });
});

describe('the list of changes', () => {
  it('says what is set at a frame, and what comes next', () => {
    expect([0, 5, 6, 8, 9, 99].map((frame) => setAt(LIST, frame)?.frame)).toEqual([0, 0, 6, 6, 9, 9]);
    expect([0, 5, 6, 9].map((frame) => nextAfter(LIST, frame)?.frame)).toEqual([6, 6, 9, undefined]);
    expect(setAt(undefined, 3)).toBeUndefined();
  });

  it('is gone through by hand: before the start all is to be set, then what has moved', () => {
    const before = dueAt(LIST, 1000, -30);
    expect([before.now, before.next?.frame, before.until]).toEqual([undefined, 0, 30]);
    expect(before.sets).toEqual(['0.5 s', 'ISO 100', 'f/8']);
    const within = dueAt(LIST, 1000, 59);
    expect([within.now?.frame, within.next?.frame, within.until]).toEqual([0, 6, 1]);
    expect(within.sets).toEqual(['1 s']);
    expect(within.after.map((one) => one.sets)).toEqual([['ISO 200']]);
    const done = dueAt(LIST, 1000, 95);
    expect([done.now?.frame, done.next, done.until]).toEqual([9, undefined, 0]);
  });

  it('names what is moved as it is dialled', () => {
    expect(setsOf(change(3, ['filter'], { density: 3 }))).toEqual(['filter of 3 stops on']);
    expect(setsOf(change(3, ['filter', 'aperture']))).toEqual(['filter off', 'f/8']);
  });

  it.each([
    [0, '0:00'],
    [4.2, '0:05'],
    [64, '1:04'],
    [3600, '1:00:00'],
    [7505, '2:05:05'],
    [3 * 86_400 + 5, '3 days']
  ])('counts down from %d s as %s', (seconds, said) => expect(countdown(seconds)).toBe(said));
});

describe('what the playhead shows', () => {
  const beat = (need: number) => ({ need_s: need, parts: [] }) as never;
  const light = {
    shutter_s: { frames: [], values: [0.5, 0.5, 8, 8] },
    bright: { frames: [], values: [0, -2] }
  };
  const told = {
    beat: beat(10),
    beats: [
      { exposure_s: 0.5, beat: beat(3) },
      { exposure_s: 8, beat: beat(10) }
    ],
    light
  } as never;

  it('is the beat of the exposure there, and the tightest where nothing follows the light', () => {
    expect([0, 1, 3].map((frame) => beatAt(told, frame)?.need_s)).toEqual([3, 3, 10]);
    expect(beatAt({ beat: beat(7), beats: [], light: {} } as never, 2)?.need_s).toBe(7);
    expect(beatAt({ beat: null, beats: [], light: {} } as never, 2)).toBeNull();
  });

  it('is as bright as its own frame, not as one between two', () => {
    expect([0, 0.9, 1].map((frame) => brightAt(told, frame))).toEqual([0, 0, -2]);
    expect(isExposed({ light: {} } as never)).toBe(false);
    expect(brightAt({ light: {} } as never, 3)).toBe(0);
  });
});
