/** What a hand sets next, and what after that: from the list of changes and the time that has passed. */
import { number, shutter, write } from '../format';
import type { ChangeLine } from '../drawings/light/geometry';

export interface Coming {
  frame: number;
  moment: number;
  sets: string[];
}

export interface Hand {
  now: ChangeLine | undefined;
  next: ChangeLine | undefined;
  /** What the next one sets, each on a line of its own. */
  sets: string[];
  /** Seconds until it is due. */
  until: number;
  after: Coming[];
}

const AFTER = 3;

/** What is moved by a change, in the words of the dials; of the first one everything. */
export function setsOf(change: ChangeLine): string[] {
  const each: Record<string, string> = {
    shutter: shutter(change.shutter_s),
    iso: `ISO ${number(change.iso, 6)}`,
    aperture: `f/${number(change.aperture)}`,
    filter: change.density ? `filter of ${write(change.density, 'stops')} on` : 'filter off'
  };
  const moved = change.moved ?? [];
  const first = ['shutter', 'iso', 'aperture', ...(change.density ? ['filter'] : [])];
  return (moved.length ? moved : first).map((name) => each[name] ?? name);
}

/** Where a hand is in the list, so many seconds after the first frame; before it everything is still to be set. */
export function dueAt(changes: readonly ChangeLine[], start: number, elapsed: number): Hand {
  const at = (change: ChangeLine) => change.moment - start;
  const passed = changes.filter((change) => at(change) <= elapsed).length;
  const next = changes[passed];
  return {
    now: changes[passed - 1],
    next,
    sets: next ? setsOf(next) : [],
    until: next ? Math.max(0, at(next) - elapsed) : 0,
    after: changes
      .slice(passed + 1, passed + 1 + AFTER)
      .map((change) => ({ frame: change.frame, moment: change.moment, sets: setsOf(change) }))
  };
}

/** `1:04`, `12:30`, `2:05:00`, and of more than a day how many days. */
export function countdown(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  if (hours >= 48) return `${Math.floor(hours / 24)} days`;
  return hours ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}
