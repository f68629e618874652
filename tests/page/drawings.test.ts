import { describe, expect, test } from 'vitest';
import {
  ahead,
  content,
  edge,
  multiples,
  pointing,
  rows,
  scale,
  square,
  wedge,
  zoomForAll
} from '../../frontend/src/drawings/plan/geometry';
import { boxOf, scaleFor, spread } from '../../frontend/src/drawings/rig/geometry';
import { arc, at } from '../../frontend/src/drawings/ring/geometry';
import {
  flagAt,
  heights,
  path,
  shared,
  transformTo,
  viewOf
} from '../../frontend/src/drawings/span/geometry';

import { boxOf as labelBox, placed } from '../../frontend/src/drawings/labels';

const near = (values: number[]) => values.map((value) => expect.closeTo(value, 6));

describe('the plan from above', () => {
  const to = scale({
    width: 600,
    height: 400,
    left: -1000,
    right: 2000,
    far: 5000,
    under: 40,
    behind: 0
  });
  test('has one scale both ways, and comes back to the millimetre', () => {
    expect(to.x(1000) - to.x(0)).toBeCloseTo(to.y(0) - to.y(1000), 9);
    for (const mm of [-1000, 0, 730, 2000]) expect(to.mmX(to.x(mm))).toBeCloseTo(mm, 6);
    for (const mm of [0, 12, 5000]) expect(to.mmY(to.y(mm))).toBeCloseTo(mm, 6);
  });
  test('holds what it has to hold', () => {
    expect(to.x(-1000)).toBeGreaterThanOrEqual(0);
    expect(to.x(2000)).toBeLessThanOrEqual(600);
    expect(to.y(5000)).toBeGreaterThanOrEqual(-1e-9);
    expect(to.y(0)).toBe(360);
  });
  test('looks behind the camera only where the camera does', () => {
    expect(content(0, 900, [2000], undefined, 1).behind).toBe(0);
    const back = content(0, 900, [2000], undefined, 1, true);
    const both = scale({ width: 600, height: 400, under: 40, ...back });
    expect(both.mmY(360)).toBeCloseTo(-back.behind, 6);
    expect(both.y(0)).toBeLessThan(360);
    expect(both.mmY(both.y(-500))).toBeCloseTo(-500, 6);
  });
  test('turns clockwise from square to the rail, and back again', () => {
    expect(ahead(100, 0, 50)).toEqual(near([100, 50]));
    expect(ahead(100, 90, 50)).toEqual(near([150, 0]));
    expect(ahead(0, -30, 2)).toEqual(near([-1, Math.sqrt(3)]));
    for (const pan of [-170, -45, 0, 12.5, 90, 135]) {
      const [x, y] = ahead(420, pan, 3000);
      expect(pointing(420, x, y)).toBeCloseTo(pan, 9);
    }
  });
  test('draws a field of view as wide as it is', () => {
    const numbers = wedge(to, 0, 20, 54, 3000)
      .match(/-?\d+(\.\d+)?/g)!
      .map(Number);
    const [x0, y0, x1, y1] = numbers as [number, number, number, number];
    const left = (Math.atan2(x1 - x0, y0 - y1) * 180) / Math.PI;
    expect(left).toBeCloseTo(20 - 27, 6);
    expect(wedge(to, 0, 0, 200, 3000)).toContain(' 0 1 1 ');
    expect(wedge(to, 0, 0, 54, 3000)).toContain(' 0 0 1 ');
  });
  test('has round squares, some seven across', () => {
    for (const across of [900, 4200, 16_800, 123_000]) {
      const size = square(across);
      expect([1, 2, 5]).toContain(size / 10 ** Math.floor(Math.log10(size) + 1e-9));
      expect(across / size).toBeLessThanOrEqual(7);
      expect(across / size).toBeGreaterThan(2.7);
    }
  });
});

describe('what stands on the plan', () => {
  test('is the rail, and what is followed before what is near', () => {
    const rail = content(0, 900, [3000, 9000, -50], undefined, 1);
    expect(rail.far).toBe(3900);
    expect(content(0, 900, [3000, 9000], 9000, 1).far).toBe(13_050);
    expect(content(0, 900, [], undefined, 1).far).toBeCloseTo(990, 6);
    expect(content(0, 900, [3000], undefined, 4).far).toBe(15_600);
    expect((rail.left + rail.right) / 2).toBe(450);
    expect(zoomForAll([[0, 7800]], 3900)).toBeCloseTo(2.2, 9);
  });
  test('has lines at multiples, both ends counted, and never more than can be drawn', () => {
    expect(multiples(0, 900, 300)).toEqual([0, 300, 600, 900]);
    expect(multiples(-250, 260, 100)).toEqual([-200, -100, 0, 100, 200]);
    expect(multiples(10, 90, 100)).toEqual([]);
    expect(multiples(0, 1e9, 1).length).toBe(400);
  });
  test('has boxes in rows where they would lie on one another', () => {
    expect(rows([100, 300, 110, 120], 26, 2)).toEqual([0, 0, 1, 2]);
    expect(rows([5, 6, 7, 8], 26, 2)).toEqual([0, 1, 2, 2]);
    expect(rows([40, 70, 100], 26, 2)).toEqual([0, 0, 0]);
  });
  test('points from the edge to what is beyond it', () => {
    expect(edge([280, 300], [280, -5000], 560, 400)).toEqual({ x: 280, y: 16, turned: 0 });
    expect(edge([280, 300], [9280, 300], 560, 400)).toMatchObject({ x: 544, turned: 90 });
    expect(edge([280, 300], [-9280, 300], 560, 400)).toMatchObject({ x: 16, turned: -90 });
  });
});

describe('the rig from the side', () => {
  const part = (kind: string, x_mm: number, y_mm: number, rides = false) =>
    ({ kind, x_mm, y_mm, width_mm: 100, height_mm: 200, rides }) as never;
  test('holds every part, wherever the carriage goes', () => {
    const rig = {
      parts: [part('support', 0, 0), part('body', 300, 1200, true)],
      carriage_mm: [300, 900]
    } as never;
    expect(boxOf(rig)).toEqual({ left: -200, right: 950, top: 1400 });
    const to = scaleFor({ left: -200, right: 950, top: 1400 }, 500, 400, 380);
    expect(to.x(950)).toBeLessThanOrEqual(500);
    expect(to.y(1400)).toBeGreaterThanOrEqual(0);
    expect(to.y(0)).toBe(380);
    expect(to.x(100) - to.x(0)).toBeCloseTo(to.px(100), 9);
  });
  test('spreads labels that would lie on one another, in their order', () => {
    const placed = spread([50, 52, 51, 200], 14, 0, 300);
    expect(placed).toEqual([50, 78, 64, 200]);
    const crowded = spread([290, 295, 299], 14, 0, 300);
    expect(Math.max(...crowded)).toBeLessThanOrEqual(300);
    expect([...crowded].sort((a, b) => a - b)).toEqual(crowded);
  });
});

describe('the ring', () => {
  test('goes clockwise from the top', () => {
    expect(at(0, 10)).toEqual(near([0, -10]));
    expect(at(0.25, 10)).toEqual(near([10, 0]));
    expect(at(0.5, 10)).toEqual(near([0, 10]));
  });
  test('draws no arc of nothing, a short way below half a turn and a long one above', () => {
    expect(arc(0.3, 0.3, 10)).toBe('');
    expect(arc(0, 0.4, 10)).toContain(' 0 0 1 ');
    expect(arc(0, 0.6, 10)).toContain(' 0 1 1 ');
    expect(arc(0, 1, 10)).not.toBe('');
  });
});

describe('the span', () => {
  test.each([
    [0, 1],
    [0.25, 0.5],
    [0.9, 0.91]
  ])('shows the part from %f to %f and no more', (from, to) => {
    const room = { left: 92, right: 1180 };
    const transform = transformTo({ from, to }, room);
    const view = viewOf(transform, room);
    expect([view.from, view.to]).toEqual(near([from, to]));
    expect(transform.applyX(92 + from * 1088)).toBeCloseTo(92, 6);
  });
  test('lets neither of two stretches get shorter than its least', () => {
    expect(shared([100, 200], [10, 20], 30.4)).toEqual([130, 170]);
    expect(shared([100, 200], [10, 20], -500)).toEqual([10, 290]);
    expect(shared([100, 200], [10, 20], 500)).toEqual([280, 20]);
  });
  test('keeps its flag on the page', () => {
    const room = { left: 92, right: 1180 };
    expect(flagAt(200, 300, room, 1200)).toBe(206);
    expect(flagAt(1100, 300, room, 1200)).toBe(794);
    expect(flagAt(20, 300, room, 1200)).toBe(92);
  });
  test('draws the highest at the top, and what is still low down', () => {
    expect(heights([0, 5, 10], 20, 80)).toEqual([80, 50, 20]);
    expect(heights([3, 3], 20, 80)).toEqual([80, 80]);
    expect(path([0, 10], [1, 2])).toBe('M0,1L10,2');
  });
});

describe('labels', () => {
  const room = { left: 0, right: 400, top: 0, bottom: 300 };
  const thing = (x: number, y: number, ...lines: string[]) => ({ x, y, reach: 10, lines });
  const boxes = (things: ReturnType<typeof thing>[], taken: Parameters<typeof placed>[1] = []) =>
    placed(things, taken, room).map((at, n) => labelBox(at, things[n]!.lines));
  const clear = (all: ReturnType<typeof boxes>) =>
    all.every((a, i) =>
      all.every(
        (b, j) => j <= i || a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top
      )
    );

  test('stand beside their things where there is room', () => {
    const [at] = placed([thing(100, 100, 'post')], [], room);
    expect(at).toMatchObject({ x: 110, anchor: 'start', lead: null });
    expect(placed([thing(390, 100, 'post')], [], room)[0]).toMatchObject({ x: 380, anchor: 'end' });
  });
  test('never lie over one another, nor over what is taken, nor outside', () => {
    const crowd = Array.from({ length: 9 }, (_, n) =>
      thing(120 + n * 3, 150 + n * 2, `lamp ${n}`, '1 m off')
    );
    const taken = { left: 100, right: 180, top: 130, bottom: 180 };
    const found = boxes(crowd, [taken]);
    expect(clear([...found, taken])).toBe(true);
    for (const box of found) {
      expect(
        Math.min(box.left, box.top, room.right - box.right, room.bottom - box.bottom)
      ).toBeGreaterThanOrEqual(0);
    }
  });
  test('have a line back to their thing where they had to move away from it, and none where they did not', () => {
    const same = Array.from({ length: 14 }, () => thing(200, 150, 'lamp'));
    const leads = placed(same, [], room).map(({ lead }) => lead);
    expect(leads.slice(0, 2)).toEqual([null, null]);
    const moved = leads.filter((lead) => lead !== null);
    expect(moved.length).toBeGreaterThan(0);
    for (const [x, y] of moved) expect([x, y]).toEqual([200, 150]);
  });
  test('where nothing is free stand where they cover the least', () => {
    const everything = { left: -1, right: 401, top: -1, bottom: 301 };
    expect(placed([thing(200, 150, 'lamp')], [everything], room)).toHaveLength(1);
  });
});
