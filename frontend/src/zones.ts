/** Clock times of a place, as a person types them, to instants and back. */
import { offset } from './drawings/span/geometry';

export function zones(): string[] {
  return [...new Set(['UTC', ...Intl.supportedValuesOf('timeZone')])];
}

export function ownZone(): string {
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return zones().includes(own) ? own : 'UTC';
}

/** `2026-09-27T06:10` on the zone's clock, as an ISO instant; null for what is no date. */
export function toInstant(local: string, zone: string): string | null {
  const wall = Date.parse(`${local}Z`) / 1000;
  if (Number.isNaN(wall)) return null;
  // The offset at the wall time is the right one except within hours of a change of the clocks: look twice.
  const near = wall - offset(wall, zone);
  return new Date((wall - offset(near, zone)) * 1000).toISOString();
}

/** An instant (epoch seconds) as `2026-09-27T06:10` on the zone's clock. */
export function toLocal(epochSeconds: number, zone: string): string {
  return new Date((epochSeconds + offset(epochSeconds, zone)) * 1000).toISOString().slice(0, 16);
}
