import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import type { Brief, Change, Figure, KitCard, Plan } from '../../frontend/src/api/client';
import { groupsOf, headline, KIND_NAMES, SHELVES } from '../../frontend/src/kit/fields';
import { keyed } from '../../frontend/src/parts/keyed';
import { exact, numberAt, valueAt } from '../../frontend/src/parts/paths';
import { stepped, stepsFor } from '../../frontend/src/parts/steps';
import { working, workingText } from '../../frontend/src/parts/working';
import { dragged } from '../../frontend/src/sheet/dragged';
import { caughtUp, rebased } from '../../frontend/src/sheet/rebase';
import { open } from './opened';

const { cards } = JSON.parse(readFileSync(process.env.BRIDLE_EXPECTED!, 'utf-8')) as {
  cards: Record<string, KitCard>;
};
const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');

describe('lists that two hands change at once', () => {
  test.each([
    ['one is taken out, another put in meanwhile', 'abc', 'ac', 'abcd', 'acd'],
    ['one is put behind its neighbour, wherever that stands by now', 'ab', 'axb', 'ba', 'bax'],
    ['one is put to the front', 'ab', 'xab', 'abc', 'xabc'],
    ['one is put behind what has gone', 'ab', 'abx', 'a', 'ax'],
    ['one is replaced', 'abc', 'axc', 'abcd', 'axcd'],
    ['both take out the same', 'abc', 'ac', 'ac', 'ac'],
    ['nothing is changed', 'abc', 'abc', 'cab', 'cab']
  ])('%s', (_, seen, wanted, now, made) => {
    expect(rebased([...seen], [...wanted], [...now]).join('')).toBe(made);
  });

  test('are caught up where they are lists, and nothing else is touched', () => {
    const { plan } = open('harbour-refloat');
    const now = structuredClone(plan) as Plan;
    now.move.marks = [...now.move.marks, { ...now.move.marks[0]!, name: 'seen by the other' }];
    const asked: Change = {
      do: 'edits',
      edits: [
        { path: 'move.marks', value: plan.move.marks.slice(1) as never },
        { path: 'beat.settle_s', value: '3' }
      ]
    };
    const made = caughtUp(asked, plan, now) as typeof asked;
    const names = (made.edits[0]!.value as unknown as { name: string }[]).map((mark) => mark.name);
    expect(names).toEqual([...plan.move.marks.slice(1).map((mark) => mark.name), 'seen by the other']);
    expect(made.edits[1]).toEqual(asked.edits[1]);
    expect(caughtUp(asked, plan, plan)).toBe(asked);
    const typed: Change = { do: 'type', path: 'beat.settle_s', text: '2', imperial: false };
    expect(caughtUp(typed, plan, now)).toBe(typed);
  });
});

describe('what is told while something is dragged', () => {
  const { evaluation } = open('lamps-along-the-quay');
  const brief = {
    ...evaluation,
    frames: 77,
    figures: { 'clip.frames': { label: 'frames', value: 77, unit: 'frames', exact: '77' } },
    snags: [{ ...evaluation.snags[0]!, severity: 'stop', code: 'new-while-dragged', fixes: undefined }],
    aside: [evaluation.snags.at(-1)!.code]
  } as unknown as Brief;
  const told = dragged(evaluation, brief);

  test('replaces what it tells, and keeps the figures that it does not', () => {
    expect(told.frames).toBe(77);
    expect(told.figures['clip.frames']!.value).toBe(77);
    expect(told.figures['beat.shortest']).toEqual(evaluation.figures['beat.shortest']);
  });
  test('has no fixes for what is new, and keeps the snags that were not looked for', () => {
    expect(told.snags.map((snag) => snag.code)).toEqual(['new-while-dragged', evaluation.snags.at(-1)!.code]);
    expect(told.snags[0]!.fixes).toEqual([]);
    expect(told.snags[1]!.fixes.length).toBeGreaterThan(0);
  });
  test('keeps who is seen when', () => {
    expect(told.view!.sights).toEqual(evaluation.view!.sights);
  });
});

describe('steps', () => {
  test('go along their own grid, without noise', () => {
    expect(stepped(2.5, 0.1, 1)).toBe(2.6);
    expect(stepped(0.3, 0.1, -1)).toBe(0.2);
    expect(stepped(0.3, 0.1, 1)).toBe(0.4);
    expect(stepped(0.7, 0.1, -1)).toBe(0.6);
    expect(stepped(2.55, 0.1, 1)).toBe(2.6);
    expect(stepped(2.55, 0.1, -1)).toBe(2.5);
    expect(stepped(-0.05, 0.1, 1)).toBe(0);
    expect(stepped(1, 1, -1)).toBe(0);
  });
  test.each([
    ['s', 0.5, 0.1],
    ['s', 5, 0.5],
    ['s', 90, 1],
    ['s', 3600, 60],
    ['shutter', 1, 0.1],
    ['deg', 20, 0.1],
    ['mm', 20, 1],
    ['what nobody knows', 20, 1]
  ])('of %s at %d are %d', (unit, value, step) => {
    expect(stepsFor(unit, value).usual).toBe(step);
    expect(stepsFor(unit, value).coarse).toBeGreaterThan(step);
    expect(stepsFor(unit, value).fine).toBeLessThanOrEqual(step);
  });
});

describe('paths and names', () => {
  test('find values of a plan, exact ones too', () => {
    const { plan } = open('harbour-refloat');
    expect(valueAt(plan, 'move.marks.0.name')).toBe(plan.move.marks[0]!.name);
    expect(valueAt(plan, 'move.nowhere.at.all')).toBeUndefined();
    expect(numberAt({ a: ['3/2', null, 0] }, 'a.0')).toBe(1.5);
    expect([numberAt({ a: ['3/2', null, 0] }, 'a.1'), numberAt({ a: [0] }, 'a.0')]).toEqual([null, 0]);
    expect(['1/3', '0.25', 4].map(exact)).toEqual([1 / 3, 0.25, 4]);
  });
  test('tell things of one name apart, whatever they are called', () => {
    const made = keyed(['wait', 'walk', 'wait', 'wait'], (name) => name);
    expect(new Set(made.map(({ key }) => key)).size).toBe(4);
    expect(made.map(({ it }) => it)).toEqual(['wait', 'walk', 'wait', 'wait']);
  });
});

describe('a working', () => {
  const figure = {
    key: 'x',
    label: 'sag',
    value: 1.5,
    unit: 'mm',
    exact: '',
    expression: 'load * span**3 / (48 * modulus * second)',
    source: 'beam theory',
    terms: [
      { symbol: 'load', label: 'load on the rail', value: 20, unit: 'N' },
      { symbol: 'span', label: 'between supports', value: 900, unit: 'mm' },
      { symbol: 'modulus', label: 'stiffness', value: 70, unit: 'GPa' },
      { symbol: 'second', label: 'second moment', value: 490, unit: 'mm⁴' }
    ]
  } as unknown as Figure;
  test('is said in words, and with its numbers put in', () => {
    expect(working(figure).words).toBe('= load × span³ ÷ (48 × modulus × second)');
    expect(plain(working(figure).numbers)).toBe('= 20 N × (900 mm)³ ÷ (48 × 70 GPa × 490 mm⁴)');
  });
  test('is copied with what each number is', () => {
    expect(plain(workingText(figure, 'UTC')).split('\n')).toEqual([
      'sag: 1.5 mm',
      '  = load × span³ ÷ (48 × modulus × second)',
      '  = 20 N × (900 mm)³ ÷ (48 × 70 GPa × 490 mm⁴)',
      '  load on the rail: 20 N',
      '  between supports: 900 mm',
      '  stiffness: 70 GPa',
      '  second moment: 490 mm⁴',
      '  (beam theory)'
    ]);
  });
  test('has words for what a machine would write', () => {
    const said = (expression: string) => working({ ...figure, terms: [], expression } as Figure).words;
    expect(said('max(0, ceil(rest_s / step))')).toBe('= round up (rest s ÷ step)');
    expect(said('sqrt(a**2 - b**4)')).toBe('= √(a² − b⁴)');
    expect(said('atan2(up, across)')).toBe('= direction of (up, across)');
  });
});

describe('the cards', () => {
  test.each(Object.keys(cards))('%s: every field stands on the card, once', (name) => {
    const card = cards[name]!;
    const fields = groupsOf(card).flatMap((group) => group.fields);
    const paths = fields.map((field) => field.path);
    expect(new Set(paths).size).toBe(paths.length);
    for (const field of fields) {
      const value = valueAt(card, field.path);
      expect(value, field.path).not.toBeUndefined();
      if (field.day || field.commands) expect(Array.isArray(value), field.path).toBe(!!field.commands);
      else if (value === null) expect(field.empty, field.path).toBeTruthy();
      else if (field.choices) expect(field.choices, field.path).toContain(value);
      else if (field.tick || field.yes_no) expect(typeof value, field.path).toBe('boolean');
      else expect(exact(value), field.path).not.toBeNaN();
    }
  });
  test('lie on one board each, with a name and one figure that tells them', () => {
    const kinds = SHELVES.flatMap((board) => board.kinds);
    expect([...kinds].sort()).toEqual(Object.keys(KIND_NAMES).sort());
    expect(new Set(kinds).size).toBe(kinds.length);
    for (const card of Object.values(cards)) expect(headline(card)?.value ?? 0).not.toBeNaN();
  });
});
