/** Clock times of a place: as a person types them, to instants and back, and round ones for a scale. */
import { fromAbsolute, parseDateTime, toZoned } from '@internationalized/date';
import { utcTickInterval } from 'd3-time';

export function zones(): string[] {
  return [...new Set(['UTC', ...Intl.supportedValuesOf('timeZone')])];
}

export function ownZone(): string {
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return zones().includes(own) ? own : 'UTC';
}

/** The zone's offset from UTC at an instant, in seconds. */
export function offset(epochSeconds: number, zone: string): number {
  return fromAbsolute(epochSeconds * 1000, zone).offset / 1000;
}

/** `2026-09-27T06:10` on the zone's clock, as an ISO instant; null for what is no date. */
export function toInstant(local: string, zone: string): string | null {
  try {
    return toZoned(parseDateTime(local), zone).toAbsoluteString();
  } catch {
    return null;
  }
}

/** Whether a time is one that the zone's clock skips, since it goes forward then. */
export function skipped(local: string, zone: string): boolean {
  const instant = toInstant(local, zone);
  return instant !== null && toLocal(Date.parse(instant) / 1000, zone) !== local.slice(0, 16);
}

/** An instant (epoch seconds) as `2026-09-27T06:10` on the zone's clock. */
export function toLocal(epochSeconds: number, zone: string): string {
  return fromAbsolute(epochSeconds * 1000, zone)
    .toString()
    .slice(0, 16);
}

export interface ClockTicks {
  /** From one to the next, in seconds; of days and longer as their names, of less as clock times. */
  step: number;
  /** Epoch seconds. */
  at: number[];
}

/** Round times on the zone's own clock between two instants (epoch seconds), at most so many. */
export function clockTicks(from: number, to: number, most: number, zone: string): ClockTicks {
  // Reckoned as if the place's clock were UTC, and then each put back by its own offset.
  const wall = (instant: number) => new Date((instant + offset(instant, zone)) * 1000);
  const [first, last] = [wall(from), wall(to)];
  for (let count = most; count > 0.1; count *= 0.7) {
    const every = utcTickInterval(first, last, count);
    const at = every?.range(first, new Date(+last + 1)).map((tick) => instantOf(+tick / 1000, zone)) ?? [];
    if (at.length <= most) return { step: (at[1] ?? to) - (at[0] ?? from), at };
  }
  return { step: to - from, at: [] };
}

/** The instant of a time on the zone's clock that is told as if it were UTC; around a change of clocks, the later one. */
function instantOf(wall: number, zone: string): number {
  const near = wall - offset(wall, zone);
  return wall - offset(near, zone);
}
