/** Geometry of the light drawing: the flight of settings as treads, the band around it, and marks of the dials. */
import { scaleLinear } from 'd3-scale';
import type { Evaluation } from '../../api/client';
import { elapsedAt } from '../../sheet/series';

export type Light = Evaluation['light'];
export type SchoolLight = NonNullable<Light['schools']>[number];
export type ChangeLine = NonNullable<Light['changes']>[number];

/** A setting that holds for some time: seconds after the first frame, and the exposure value that is set. */
export interface Tread {
  from: number;
  to: number;
  ev: number;
}

/** The treads of a flight, the last one up to the end of the shoot. */
export function treads(flight: SchoolLight['flight'], map: Evaluation['traces'], end: number): Tread[] {
  const at = flight.frames.map((frame) => elapsedAt(map?.map, frame));
  return flight.ev.map((ev, n) => ({ from: at[n] ?? 0, to: at[n + 1] ?? end, ev }));
}

/** A stepped line through treads, lifted by some exposure values. */
export function steps(
  flight: readonly Tread[],
  x: (seconds: number) => number,
  y: (ev: number) => number,
  by = 0
): string {
  return flight
    .map(({ from, to, ev }, n) => {
      const height = y(ev + by).toFixed(1);
      return `${n ? 'V' : `M${x(from).toFixed(1)} `}${height}H${x(to).toFixed(1)}`;
    })
    .join('');
}

/** The band between two stepped lines, as one closed shape. */
export function band(
  flight: readonly Tread[],
  x: (seconds: number) => number,
  y: (ev: number) => number,
  over: number,
  under: number
): string {
  if (!flight.length) return '';
  const back = [...flight].reverse();
  const below = back
    .map(({ from, to, ev }, n) => {
      const height = y(ev - under).toFixed(1);
      return `${n ? 'V' : `L${x(to).toFixed(1)} `}${height}H${x(from).toFixed(1)}`;
    })
    .join('');
  return `${steps(flight, x, y, over)}${below}Z`;
}

/** What a change list says is set at a frame; nothing where there is none. */
export function setAt(changes: readonly ChangeLine[] | undefined, frame: number): ChangeLine | undefined {
  let found: ChangeLine | undefined;
  for (const change of changes ?? []) {
    if (change.frame > frame) break;
    found = change;
  }
  return found;
}

/** The next change after a frame. */
export function nextAfter(changes: readonly ChangeLine[] | undefined, frame: number): ChangeLine | undefined {
  return changes?.find((change) => change.frame > frame);
}

/** The exposure values a drawing has to hold: its lines, and a little room around them. */
export function reachOf(values: readonly number[]): [number, number] {
  const known = values.filter(Number.isFinite);
  if (!known.length) return [-4, 14];
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const room = Math.max(1.2, (6 - (high - low)) / 2);
  return [Math.floor(low - room), Math.ceil(high + room)];
}

/** Every how many exposure values a line is ruled. */
export function ruled([low, high]: [number, number]): number[] {
  return scaleLinear([low, high], [0, 1])
    .ticks(Math.min(9, Math.max(3, (high - low) / 2)))
    .filter((ev) => Number.isInteger(ev));
}
