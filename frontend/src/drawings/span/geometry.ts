/** Geometry of the span: what part of the shoot is in view, and lines along it. */
import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { zoomIdentity, type ZoomTransform } from 'd3-zoom';

/** The room of a drawing along its time, in pixels. */
export interface Room {
  left: number;
  right: number;
}

/** The part of the shoot in view, as shares of it. */
export interface View {
  from: number;
  to: number;
}

export const CLOSEST = 100;

/** What a transform leaves in view. */
export function viewOf(transform: ZoomTransform, { left, right }: Room): View {
  const share = (px: number) => (transform.invertX(px) - left) / (right - left);
  return { from: share(left), to: share(right) };
}

/** The transform that shows a part of the shoot and no more. */
export function transformTo({ from, to }: View, { left, right }: Room): ZoomTransform {
  const k = 1 / (to - from);
  return zoomIdentity.translate(left * (1 - k) - from * k * (right - left), 0).scale(k);
}

/** Where on the drawing values lie between the lowest and the highest of their axis; a still axis lies low. */
export function heights(values: readonly number[], top: number, bottom: number): number[] {
  const [low = 0, high = 0] = extent(values);
  return values.map(scaleLinear([low, high > low ? high : low + 1], [bottom, top]));
}

/** A line through points, as an SVG path. */
export function path(xs: readonly number[], ys: readonly number[]): string {
  const points = xs.map((x, i) => [x, ys[i] ?? 0] as [number, number]);
  return line().digits(1)(points) ?? '';
}

/** Where a flag of a width stands beside a line: after it, or before it where there is no room. */
export function flagAt(x: number, wide: number, { left }: Room, width: number): number {
  const beside = x + 6 + wide > width ? x - 6 - wide : x + 6;
  return Math.min(Math.max(left, beside), width - wide);
}

/** A boundary between two lengths moved by some seconds: neither gets shorter than its least. Whole seconds. */
export function shared(
  lengths: readonly [number, number],
  least: readonly [number, number],
  by: number
): [number, number] {
  const kept = Math.round(Math.max(least[0] - lengths[0], Math.min(lengths[1] - least[1], by)));
  return [lengths[0] + kept, lengths[1] - kept];
}
