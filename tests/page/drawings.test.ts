import { describe, expect, test } from 'vitest';
import { ahead, pointing, scale, square, wedge } from '../../frontend/src/drawings/plan/geometry';
import { boxOf, scaleFor, spread } from '../../frontend/src/drawings/rig/geometry';
import { arc, at } from '../../frontend/src/drawings/ring/geometry';
import { clockTicks, heights, path, shift, WHOLE, zoom } from '../../frontend/src/drawings/span/geometry';

const near = (values: number[]) => values.map((value) => expect.closeTo(value, 6));

describe('the plan from above', () => {
  const to = scale({
    width: 600,
    height: 400,
    left: -1000,
    right: 2000,
    far: 5000,
    under: 40
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
  test('zooms around the place under the pointer, and never out of the shoot', () => {
    for (const around of [0.3, 0.5, 0.62]) {
      const view = zoom(WHOLE, 0.5, around);
      expect(view.to - view.from).toBeCloseTo(0.5, 9);
      expect((around - view.from) / (view.to - view.from)).toBeCloseTo(around, 9);
    }
    expect(zoom({ from: 0.2, to: 0.4 }, 99, 0.3)).toEqual(WHOLE);
    expect(zoom(WHOLE, 1e-9, 0.5).to - zoom(WHOLE, 1e-9, 0.5).from).toBeCloseTo(0.01, 9);
    expect(shift({ from: 0.6, to: 0.8 }, 5)).toEqual({
      from: expect.closeTo(0.8, 9),
      to: 1
    });
    expect(shift({ from: 0.6, to: 0.8 }, -5)).toEqual({
      from: 0,
      to: expect.closeTo(0.2, 9)
    });
  });
  test('draws the highest at the top, and what is still low down', () => {
    expect(heights([0, 5, 10], 20, 80)).toEqual([80, 50, 20]);
    expect(heights([3, 3], 20, 80)).toEqual([80, 80]);
    expect(path([0, 10], [1, 2])).toBe('M0.0 1.0L10.0 2.0');
  });
  test('ticks at round times of the place’s own clock', () => {
    // A shoot from 06:10 to 09:22 on a clock half past the hour ahead of UTC.
    const from = Date.parse('2026-09-27T00:40:00Z') / 1000;
    const { step, at: ticks } = clockTicks(from, from + 11_520, 14, 5.5 * 3600);
    expect(step).toBe(900);
    expect(ticks.map((tick) => (tick + 5.5 * 3600) % 900)).toEqual(ticks.map(() => 0));
    expect(ticks.length).toBe(13);
    expect(clockTicks(0, 3 * 365 * 86_400, 8, 0).at.length).toBeLessThanOrEqual(9);
  });
});
