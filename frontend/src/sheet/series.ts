/** Quantities along the frames, as the server tells them: read at any frame, or point by point for drawing. */
import type { Series, TimeMap } from '../api/client';

/** The y between known points, on the straight line between its neighbours; of two points at one x the later counts. */
export function between(xs: readonly number[], ys: readonly number[], x: number): number {
  let low = 0;
  let high = xs.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((xs[middle] ?? 0) <= x) low = middle;
    else high = middle;
  }
  const [x0 = 0, x1 = 0, y0 = 0, y1 = 0] = [xs[low], xs[high], ys[low], ys[high]];
  if (x1 === x0) return y0;
  return y0 + ((x - x0) / (x1 - x0)) * (y1 - y0);
}

/** The value of a series at a frame; nought where there is none. */
export function at(series: Series | undefined, frame: number): number {
  if (!series?.values.length) return 0;
  const { frames, values } = series;
  if (values.length === 1) return values[0] ?? 0;
  if (frames?.length) return between(frames, values, frame);
  const low = Math.max(0, Math.min(Math.floor(frame), values.length - 2));
  const [y0 = 0, y1 = 0] = [values[low], values[low + 1]];
  return y0 + Math.max(0, Math.min(frame - low, 1)) * (y1 - y0);
}

/** The frames at which a series is known; of one that stays the same its ends. */
export function framesOf(series: Series, count: number): readonly number[] {
  if (series.values.length === 1) return [0, Math.max(0, count - 1)];
  return series.frames?.length ? series.frames : series.values.map((_, n) => n);
}

/** The values at those frames. */
export function valuesOf(series: Series): readonly number[] {
  return series.values.length === 1 ? [series.values[0] ?? 0, series.values[0] ?? 0] : series.values;
}

/** Seconds after the first frame at which a frame is taken. */
export function elapsedAt(map: TimeMap | undefined, frame: number): number {
  return map ? between(map.frames, map.elapsed_s, frame) : 0;
}

/** The frame, with the share of its slot, that owns a moment; in a gap it is the first one after it. */
export function frameAt(map: TimeMap | undefined, seconds: number): number {
  return map ? between(map.elapsed_s, map.frames, seconds) : 0;
}

/** When each of some frames is, in the order of the frames: one walk along the map. */
export function elapsedOf(map: TimeMap, frames: readonly number[]): number[] {
  let low = 0;
  const last = map.frames.length - 1;
  return frames.map((frame) => {
    while (low < last - 1 && (map.frames[low + 1] ?? 0) <= frame) low += 1;
    const [x0 = 0, x1 = 0] = [map.frames[low], map.frames[low + 1]];
    const [y0 = 0, y1 = 0] = [map.elapsed_s[low], map.elapsed_s[low + 1]];
    return x1 === x0 ? y0 : y0 + ((frame - x0) / (x1 - x0)) * (y1 - y0);
  });
}
