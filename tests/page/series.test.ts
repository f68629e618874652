import { describe, expect, test } from 'vitest';
import {
  at,
  between,
  elapsedAt,
  elapsedOf,
  frameAt,
  framesOf,
  valuesOf
} from '../../frontend/src/sheet/series';

// Two days of three frames a minute apart, with a night between: the third frame's slot ends at 180 s.
const NIGHT = { frames: [0, 3, 3, 6], elapsed_s: [0, 180, 50_000, 50_180] };

describe('a series', () => {
  test('of which nothing changes is one value everywhere', () => {
    const still = { values: [7.5] };
    expect([at(still, 0), at(still, 1e6)]).toEqual([7.5, 7.5]);
    expect(framesOf(still, 720)).toEqual([0, 719]);
    expect(valuesOf(still)).toEqual([7.5, 7.5]);
  });
  test('without frames has a value for each, straight between, level beyond', () => {
    const each = { values: [0, 10, 40] };
    expect([0, 0.5, 1, 1.5, 2, 9].map((frame) => at(each, frame))).toEqual([0, 5, 10, 25, 40, 40]);
    expect(framesOf(each, 3)).toEqual([0, 1, 2]);
  });
  test('with frames of its own is read between them', () => {
    const thin = { frames: [0, 100, 101, 1000], values: [0, 50, 0, 900] };
    expect([50, 100, 100.5, 101, 1000].map((frame) => at(thin, frame))).toEqual([25, 50, 25, 0, 900]);
  });
  test('that is not there is nought', () => expect(at(undefined, 3)).toBe(0));
});

describe('the time map', () => {
  test('tells when each frame is, across a night', () => {
    expect([0, 1, 2, 3, 5].map((frame) => elapsedAt(NIGHT, frame))).toEqual([0, 60, 120, 50_000, 50_120]);
    expect(elapsedOf(NIGHT, [0, 1, 2, 3, 5])).toEqual([0, 60, 120, 50_000, 50_120]);
  });
  test('tells which frame owns a moment; in the night the first of the morning', () => {
    expect([0, 90, 180, 20_000, 50_000, 50_090].map((second) => frameAt(NIGHT, second))).toEqual([
      0, 1.5, 3, 3, 3, 4.5
    ]);
  });
  test('of a shoot that is open is nought', () =>
    expect([elapsedAt(undefined, 4), frameAt(undefined, 4)]).toEqual([0, 0]));
  test('walked along gives what is looked up one by one', () => {
    const map = {
      frames: [0, 10, 11, 12, 40],
      elapsed_s: [0, 100, 105, 107, 200]
    };
    const frames = [0, 3, 10, 11, 11.5, 12, 20, 39, 40];
    expect(elapsedOf(map, frames)).toEqual(frames.map((frame) => between(map.frames, map.elapsed_s, frame)));
  });
});
