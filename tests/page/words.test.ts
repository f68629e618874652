import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { clock, date, day, duration, fill, number, shutter, write } from '../../frontend/src/format';
import { reader } from '../../frontend/src/reader.svelte';
import { clockTicks, offset, toInstant, toLocal } from '../../frontend/src/time';

interface Expected {
  offsets: Record<string, Record<string, number>>;
  written: [number, string, string][];
}
const expected = JSON.parse(readFileSync(process.env.BRIDLE_EXPECTED!, 'utf-8')) as Expected;
// The page keeps a number and its unit together on a line, and groups thousands; the server's text is plain.
const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ').replace(/(\d) (?=\d{3}\b)/g, '$1');

describe('quantities', () => {
  const units = [...new Set(expected.written.map(([, unit]) => unit))];
  test.each(units)('in “%s” are written as the server writes them', (unit) => {
    for (const [value, own, text] of expected.written)
      if (own === unit) expect(plain(write(value, unit)), `${value} ${unit}`).toBe(plain(text));
  });
  test('have no minus nought and no trailing noughts', () => {
    expect([-0.0000001, 0, 1.5, 12_345.678, -0.25].map((value) => plain(number(value)))).toEqual([
      '0',
      '0',
      '1.5',
      '12346',
      '−0.25'
    ]);
  });
  test('of time carry over to the next unit', () => {
    expect([59.9999, 3599.9999, 86_399.9999].map((value) => plain(duration(value)))).toEqual([
      '1 min',
      '1 h',
      '1 d'
    ]);
    expect([1 / 60, 0.25, 0.3, 2.5].map((value) => plain(shutter(value)))).toEqual([
      '1/60 s',
      '1/4 s',
      '0.3 s',
      '2.5 s'
    ]);
  });
  test('are told in feet and inches to those who want them, but for optics', () => {
    reader.choose({ imperial: true });
    expect(
      [write(304.8, 'mm'), write(1625.6, 'mm'), write(35, 'focal'), write(25.4, 'mm/s')].map(plain)
    ).toEqual(['1 ft', '5 ft 4 in', '35 mm', '1 in/s']);
    expect([write(453.59237, 'g'), write(100, 'g')].map(plain)).toEqual(['1 lb', '3.53 oz']);
    reader.choose({ imperial: false });
  });
  test('give a name one article, not two', () => {
    const called = (name: string) => plain(fill('The {part} sags.', { part: { value: name, unit: '' } }));
    for (const [name, said] of [
      ['my head', 'My head sags.'],
      ['The old rail', 'The old rail sags.'],
      ['a-frame', 'The a-frame sags.'],
      ['myrtle post', 'The myrtle post sags.']
    ])
      expect(called(name!)).toBe(said);
    expect(plain(fill('On the {part}.', { part: { value: 'our rail', unit: '' } }))).toBe('On our rail.');
  });
  test('fill the slots of a sentence, and leave out what is not there', () => {
    const slots = {
      need: { value: 12.5, unit: 's' },
      axis: { value: 'pan', unit: '' }
    };
    expect(plain(fill('The {axis} needs {need}{more}.', slots))).toBe('The pan needs 12.5 s.');
  });
});

describe('clocks', () => {
  test.each(Object.keys(expected.offsets))('of %s are as far from UTC as they are', (zone) => {
    for (const [moment, seconds] of Object.entries(expected.offsets[zone]!))
      expect(offset(Number(moment), zone), moment).toBe(seconds);
  });
  test('are read as they hang on the wall, through both changes', () => {
    for (const [local, zone, instant] of [
      ['2026-09-27T06:10', 'Europe/London', '2026-09-27T05:10:00.000Z'],
      ['2026-10-25T00:30', 'Europe/London', '2026-10-24T23:30:00.000Z'],
      ['2026-10-25T12:00', 'Europe/London', '2026-10-25T12:00:00.000Z'],
      ['2026-03-29T03:00', 'Europe/London', '2026-03-29T02:00:00.000Z'],
      ['2026-01-01T00:00', 'Asia/Kolkata', '2025-12-31T18:30:00.000Z'],
      ['nonsense', 'UTC', null]
    ] as const)
      expect(toInstant(local, zone)).toBe(instant);
    for (const at of [1_790_000_000, 1_793_000_000])
      expect(Date.parse(toInstant(toLocal(at, 'America/St_Johns'), 'America/St_Johns')!)).toBe(
        Math.floor(at / 60) * 60_000
      );
  });
  test.each([
    ['2026-09-27T00:40:00Z', 11_520, 14, 'Asia/Kolkata', 900],
    ['2026-10-25T00:10:00Z', 4 * 3600, 6, 'Europe/London', 1800],
    ['2026-03-02T08:00:00Z', 216 * 86_400, 12, 'Europe/London', 28 * 86_400],
    ['2026-01-01T00:00:00Z', 30, 8, 'UTC', 5],
    ['2026-01-01T00:00:00Z', 3 * 365 * 86_400, 8, 'Pacific/Chatham', 100 * 86_400]
  ] as const)('have round times from %s over %d s, at most %d, in %s', (start, over, most, zone, least) => {
    const from = Date.parse(start) / 1000;
    const { step, at } = clockTicks(from, from + over, most, zone);
    expect(at.length).toBeLessThanOrEqual(most);
    expect(at.length).toBeGreaterThan(1);
    expect(step).toBeGreaterThanOrEqual(least);
    for (const tick of at) {
      expect(tick).toBeGreaterThanOrEqual(from);
      expect(tick).toBeLessThanOrEqual(from + over);
      // Round on the wall, on both sides of a change of the clocks.
      expect((tick + offset(tick, zone)) % Math.min(step, 86_400)).toBeCloseTo(0, 6);
    }
  });
  test('show twelve hours to those who want them', () => {
    const at = Date.parse('2026-09-27T18:05:09Z') / 1000;
    expect(clock(at, 'UTC')).toBe('18:05:09');
    expect(clock(at, 'UTC', false)).toBe('18:05');
    reader.choose({ twelve: true });
    expect(clock(at, 'UTC').toLowerCase()).toContain('6:05:09 pm');
    reader.choose({ twelve: false });
  });
  test('have days with their names', () => {
    expect(day(0, 'UTC')).toBe('Thu 1 Jan 1970');
    expect(date('2026-11-03')).toBe('3 Nov 2026');
  });
});
