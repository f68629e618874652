/** Writing quantities as people read them. Reading what they type is the server's business. */
import type { Slot } from './api/client';
import { reader } from './reader.svelte';

const DAY = 86_400;
const HOUR = 3_600;
const MINUTE = 60;
const NO_BREAK = ' ';
const NARROW = ' ';

export function number(value: number, digits = 4): string {
  if (value === 0) return '0';
  const places = Math.max(0, Math.min(6, digits - 1 - Math.floor(Math.log10(Math.abs(value)))));
  let text = value.toFixed(places);
  if (text.includes('.')) text = text.replace(/0+$/, '').replace(/\.$/, '');
  if (text === '-0' || text === '0') return '0';
  const [whole = '', decimals] = text.replace('-', '').split('.');
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, NARROW) : whole;
  return (value < 0 ? '−' : '') + grouped + (decimals ? `.${decimals}` : '');
}

export function duration(value: number): string {
  const seconds = Math.round(value * 1000) / 1000;
  if (Math.abs(seconds) < MINUTE) return `${number(seconds, 5)}${NO_BREAK}s`;
  const parts: string[] = [];
  let rest = Math.abs(seconds);
  for (const [name, size] of [
    ['d', DAY],
    ['h', HOUR],
    ['min', MINUTE]
  ] as const) {
    const count = Math.floor(rest / size);
    rest = Math.round((rest - count * size) * 1000) / 1000;
    if (count) parts.push(`${count}${NO_BREAK}${name}`);
  }
  if (rest && parts.length < 3) parts.push(`${number(rest, 5)}${NO_BREAK}s`);
  return (seconds < 0 ? '−' : '') + parts.join(NO_BREAK);
}

export function shutter(seconds: number): string {
  if (seconds > 0 && seconds < 0.3) {
    const whole = Math.round(1 / seconds);
    if (Math.abs(1 / seconds - whole) < 0.02 * whole) return `1/${whole}${NO_BREAK}s`;
  }
  return duration(seconds);
}

export function rate(value: number): string {
  return value.toFixed(3).replace(/0+$/, '').replace(/\.$/, '');
}

export function clock(epochSeconds: number, zone: string, seconds = true): string {
  return new Intl.DateTimeFormat('en-GB', {
    hour: reader.twelve ? 'numeric' : '2-digit',
    minute: '2-digit',
    ...(seconds ? { second: '2-digit' } : {}),
    hour12: reader.twelve,
    timeZone: zone
  }).format(new Date(epochSeconds * 1000));
}

/** `20 Apr`, for scales of days. */
export function shortDay(epochSeconds: number, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: zone }).format(
    new Date(epochSeconds * 1000)
  );
}

/** A calendar day as the server writes it, `2026-11-03`. */
export function date(iso: string): string {
  return day(Date.parse(`${iso}T12:00:00Z`) / 1000, 'UTC').replace(/^\w+ /, '');
}

export function day(epochSeconds: number, zone: string, long = false): string {
  const text = new Intl.DateTimeFormat('en-GB', {
    weekday: long ? 'long' : 'short',
    day: 'numeric',
    month: long ? 'long' : 'short',
    year: 'numeric',
    timeZone: zone
  }).format(new Date(epochSeconds * 1000));
  return text.replace(',', '');
}

/** Things that are counted, by their plural. */
const COUNTED = new Set([
  'frames',
  'layers',
  'lines',
  'tools',
  'objects',
  'ways',
  'presses',
  'pictures',
  'faults'
]);
const JOINED: Record<string, string> = {
  '': '{}',
  times: '{}×',
  deg: '{}°',
  'deg/s': '{} °/s',
  'deg/s²': '{} °/s²',
  'deg/min': '{} °/min',
  'deg/h': '{} °/h',
  'deg/frame': '{}° a frame',
  'mm/frame': '{} mm a frame',
  'f-number': 'f/{}'
};

const INCH = 25.4;
const FOOT = 12 * INCH;
const OUNCE = 28.349523125;

/** Feet and inches from a foot on, inches below; three significant decimals are enough for a ruler. */
function length(mm: number): string {
  if (Math.abs(mm) < FOOT) return `${number(mm / INCH)}${NO_BREAK}in`;
  const inches = Math.round((Math.abs(mm) / INCH) * 100) / 100;
  const feet = Math.floor(inches / 12);
  const rest = Math.round((inches - feet * 12) * 100) / 100;
  return `${mm < 0 ? '−' : ''}${number(feet, 9)}${NO_BREAK}ft${rest ? `${NO_BREAK}${number(rest)}${NO_BREAK}in` : ''}`;
}

function mass(grams: number): string {
  if (!reader.imperial)
    return Math.abs(grams) < 1000 ? `${number(grams)}${NO_BREAK}g` : `${number(grams / 1000)}${NO_BREAK}kg`;
  const pounds = grams / OUNCE / 16;
  return Math.abs(pounds) < 1
    ? `${number(grams / OUNCE, 3)}${NO_BREAK}oz`
    : `${number(pounds, 3)}${NO_BREAK}lb`;
}

/** Units that an imperial reader sees in inches. */
const INCHES: Record<string, string> = { 'mm/s': 'in/s', 'mm/s²': 'in/s²', 'mm/frame': 'in a frame' };

export function write(value: number, unit: string, zone = 'UTC'): string {
  if (unit === 'g') return mass(value);
  // Focal lengths and sensors are millimetres to everybody.
  if (unit === 'focal') return `${number(value)}${NO_BREAK}mm`;
  if (reader.imperial && unit === 'mm') return length(value);
  if (reader.imperial && INCHES[unit]) return `${number(value / INCH)}${NO_BREAK}${INCHES[unit]}`;
  if (unit === 's') return duration(value);
  if (unit === 'shutter') return shutter(value);
  if (unit === 'instant') return clock(value, zone);
  if (unit === 'moment') return `${shortDay(value, zone)}, ${clock(value, zone)}`;
  if (unit === 'dated') return `${day(value, zone).replace(/^\w+ /, '')}, ${clock(value, zone)}`;
  if (unit === 'rate') return `${rate(value)} a second`;
  if (unit === 'share') return `${number(value * 100)}${NO_BREAK}%`;
  if (unit === 'stops') return `${number(value)}${NO_BREAK}${Math.abs(value) === 1 ? 'stop' : 'stops'}`;
  const text = number(value, COUNTED.has(unit) ? 12 : 4);
  if (COUNTED.has(unit)) return `${text}${NO_BREAK}${value === 1 ? unit.slice(0, -1) : unit}`;
  return (JOINED[unit] ?? `{}${NO_BREAK}${unit}`).replace('{}', text);
}

/** What is counted, dialled or read off a clock is written as it is. */
const WHOLE = new Set([...COUNTED, 'instant', 'moment', 'dated', 'rate', 'shutter', 'f-number', 'focal']);
const SPOKEN = 3;

/** A value as it is read: three significant digits, no more; what is whole stays whole. All of them are in the working. */
export function spoken(value: number, unit: string): number {
  if (COUNTED.has(unit)) return Math.round(value);
  if (WHOLE.has(unit) || !value || !Number.isFinite(value)) return value;
  if (unit === 's' && Math.abs(value) >= MINUTE) return Math.round(value);
  const scale = unit === 'share' ? 0.01 : unit === 'g' && Math.abs(value) >= 1000 ? 1000 : 1;
  const read = value / scale;
  const places = Math.max(0, SPOKEN - 1 - Math.floor(Math.log10(Math.abs(read))));
  return Number(read.toFixed(Math.min(places, 20))) * scale;
}

/** A figure as it is read in a sentence or a margin. */
export const say = (value: number, unit: string, zone = 'UTC'): string =>
  write(spoken(value, unit), unit, zone);

/** “The my head”, “a the rail”: what somebody has called a card begins like that. */
const TWO_ARTICLES = /\b([Tt]he|[Aa]n?) ([Mm]y|[Oo]ur|[Yy]our|[Hh]is|[Hh]er|[Tt]heir|[Tt]he|[Aa]n?)(?= )/g;

/** A sentence with its slots written out. */
export function fill(template: string, slots: Record<string, Slot>, zone = 'UTC'): string {
  const said = template.replace(/\{(\w+)\}/g, (_, name: string) => {
    const slot = slots[name];
    if (!slot) return '';
    return typeof slot.value === 'string' ? slot.value : say(slot.value, slot.unit, zone);
  });
  const once = said.replace(TWO_ARTICLES, (_, first: string, own: string) =>
    /^[A-Z]/.test(first) ? own[0]!.toUpperCase() + own.slice(1).toLowerCase() : own
  );
  // A name that somebody has given begins a sentence as anything else does.
  return /^\{.*\.$/s.test(template) ? once.charAt(0).toUpperCase() + once.slice(1) : once;
}

/** How the interval is said before its figure: what is a mean says so. */
export function oneEvery(interval: { label: string } | undefined): string {
  return interval?.label.startsWith('mean') ? 'about every' : 'one every';
}

/** “a, b and c”. */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** The size of a file, as people say it. */
export const filed = (bytes: number) =>
  bytes < 100_000 ? `${number(bytes / 1000, 3)} kB` : `${number(bytes / 1e6, 3)} MB`;
