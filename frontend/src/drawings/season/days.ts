/** The days of a season side by side: where each begins, which months they are, and where the playhead stands. */
import { elapsedAt } from '../../sheet/series';
import type { Sheet } from '../../sheet/sheet.svelte';

export const [LEFT, WIDE] = [34, 620];
const DAY_MS = 86_400_000;
const LABEL_WIDE = 34;

/** A day of the season by its number, at noon of UTC: its date is the same there as at the place. */
export function dateOf(first: string, day: number): Date {
  return new Date(Date.parse(`${first}T12:00:00Z`) + day * DAY_MS);
}
export const isoOf = (first: string, day: number) => dateOf(first, day).toISOString().slice(0, 10);
export const dayOf = (first: string, iso: string) =>
  Math.round((Date.parse(`${iso}T12:00:00Z`) - Date.parse(`${first}T12:00:00Z`)) / DAY_MS);

export function dayName(first: string, day: number): string {
  const long = { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' } as const;
  return dateOf(first, day).toLocaleDateString('en-GB', long);
}

/** The first of each month and the first day of all, named where there is room for it. */
export function monthsOf(first: string, count: number): { day: number; label: string }[] {
  const found: { day: number; label: string }[] = [];
  for (let day = 0; day < count; day += 1) {
    const at = dateOf(first, day);
    if (day && at.getUTCDate() !== 1) continue;
    found.push({ day, label: at.toLocaleDateString('en-GB', { month: 'short', timeZone: 'UTC' }) });
  }
  const apart = Math.ceil(LABEL_WIDE / ((WIDE / count) * 30));
  return found.map((one, n) => ({
    ...one,
    label: n % apart || (WIDE / count) * ((found[n + 1]?.day ?? count) - one.day) < 26 ? '' : one.label
  }));
}

/** Which day and minute of the place's own clock the playhead stands at. */
export function playheadOf(sheet: Sheet, first: string): { day: number; minute: number } {
  const map = sheet.evaluation.traces?.map;
  const at = new Date((sheet.start + elapsedAt(map, sheet.playhead.at)) * 1000);
  const shown = Object.fromEntries(
    new Intl.DateTimeFormat('en-CA', {
      timeZone: sheet.zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23'
    })
      .formatToParts(at)
      .map((part) => [part.type, part.value])
  );
  return {
    day: dayOf(first, `${shown.year}-${shown.month}-${shown.day}`),
    minute: Number(shown.hour) * 60 + Number(shown.minute)
  };
}

/** The day to which a key moves, or nothing. */
export function keyed(key: string, here: number, count: number): number | null {
  const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[key];
  if (step) return Math.max(0, Math.min(count - 1, here + step));
  return key === 'Home' ? 0 : key === 'End' ? count - 1 : null;
}
