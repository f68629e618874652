import { describe, expect, test } from 'vitest';
import { CropState } from '../../frontend/src/drawings/crop/state.svelte';
import { PaceState } from '../../frontend/src/drawings/pace/state.svelte';
import { ahead } from '../../frontend/src/drawings/plan/geometry';
import { PlanView } from '../../frontend/src/drawings/plan/state.svelte';
import { RigView } from '../../frontend/src/drawings/rig/state.svelte';
import { changeGrip, changesOf } from '../../frontend/src/drawings/span/lanes/changes';
import { LEFT, RIGHT, SpanView } from '../../frontend/src/drawings/span/state.svelte';
import { SideState } from '../../frontend/src/drawings/side/state.svelte';
import { BarsState } from '../../frontend/src/drawings/subjects/state.svelte';
import { elapsedAt } from '../../frontend/src/sheet/series';
import { open, press, pull } from './opened';

const HARBOUR = 'harbour-refloat';
const BARN = 'moonlight-over-the-salt-barn';
const QUAY = 'lamps-along-the-quay';
const WEIR = 'mill-weir-footbridge';

describe('on the plan drawing', () => {
  function drawn(name = HARBOUR) {
    const shoot = open(name);
    const view = new PlanView(shoot.sheet);
    view.page = 560;
    view.height = 400;
    return { ...shoot, view };
  }

  test('a carriage goes where it is pulled, and no further than the rail', () => {
    const { view, asked } = drawn();
    for (const [mm, kept] of [
      [300, 300],
      [-5000, view.rail.low],
      [9e4, view.rail.high]
    ] as const) {
      pull(view.carriage(1), [view.stands[1]!, view.to.y(0)], [view.to.x(mm), view.to.y(0)]);
      expect(asked.at(-1)).toEqual({
        path: 'move.keyframes.1.slide_mm',
        value: expect.closeTo(kept, 1),
        merge: 'drag'
      });
    }
  });

  test('a carriage goes a millimetre a key press, ten with shift, a tenth with alt', () => {
    const { view, asked, plan } = drawn();
    const stood = plan.move.keyframes[0]!.slide_mm;
    press(view.carriage(0), 'right');
    press(view.carriage(0), 'up', 'coarse');
    press(view.carriage(0), 'left', 'fine');
    expect(asked.map(({ value }) => value)).toEqual([stood + 1, stood + 10, expect.closeTo(stood - 0.1, 6)]);
  });

  test('a pan handle turns the camera to where it is pulled', () => {
    const { view, asked, plan } = drawn();
    for (const [x, y] of [
      [200, 3000],
      [900, 1200],
      [-400, 2500]
    ] as const) {
      pull(view.pan(2), [0, 0], [view.to.x(x), view.to.y(y)]);
      const pan = asked.at(-1)!.value as number;
      const from = plan.move.keyframes[2]!.slide_mm;
      const [atX, atY] = ahead(from, pan, Math.hypot(x - from, y));
      expect(Math.hypot(atX - x, atY - y)).toBeLessThan(1);
    }
    pull(view.pan(2), [0, 0], [view.to.x(820), view.to.y(-4000)]);
    expect(Math.abs(asked.at(-1)!.value as number)).toBeLessThanOrEqual(view.head.high);
  });

  test('a mark stands where it is put, in whole millimetres; a bearing turns', () => {
    const { view, asked, plan } = drawn();
    const stood = plan.move.marks[0]!;
    // Taken hold of beside its middle, it goes as far as the hand goes.
    const from: [number, number] = [view.to.x(stood.x_mm) + 4, view.to.y(stood.y_mm) - 3];
    pull(view.mark(0), from, [view.to.x(512.4) + 4, view.to.y(1733.8) - 3]);
    expect(asked.map(({ path, value }) => [path, value])).toEqual([
      ['move.marks.0.x_mm', 512],
      ['move.marks.0.y_mm', 1734]
    ]);
    // Along an axis in which the hand does not move, it stays to the last digit.
    stood.y_mm = 1500.4;
    pull(view.mark(0), from, [from[0] + 20, from[1]]);
    expect(asked.at(-1)).toMatchObject({ path: 'move.marks.0.y_mm', value: 1500.4 });
    press(view.mark(0), 'down', 'coarse');
    expect(asked.at(-1)).toMatchObject({ path: 'move.marks.0.y_mm', value: Math.round(stood.y_mm - 100) });
    plan.move.marks[0]!.form = 'bearing';
    plan.move.marks[0]!.bearing_deg = 359.5;
    press(view.mark(0), 'right');
    expect(asked.at(-1)).toMatchObject({ path: 'move.marks.0.bearing_deg', value: 0.5 });
  });

  test('what is beyond the drawing stands at its edge, pointing there; only a bearing is pulled', () => {
    const { view, asked } = drawn();
    expect(view.here.length + view.distant.length).toBe(view.marks.length);
    expect(view.distant.length).toBeGreaterThan(1);
    for (const { mark, at } of view.distant) {
      expect(at.x).toBeGreaterThanOrEqual(15.9);
      expect(at.x).toBeLessThanOrEqual(view.width - 15.9);
      const middle = view.to.x((view.rail.low + view.rail.high) / 2);
      const turned =
        (Math.atan2(view.to.x(mark.x_mm) - middle, view.to.y(0) - view.to.y(mark.y_mm)) * 180) / Math.PI;
      expect(at.turned).toBeCloseTo(turned, 6);
    }
    pull(view.beyond(view.distant[0]!.index), [0, 0], [99, 99]);
    expect(asked).toEqual([]);
    view.fit();
    expect(view.distant).toEqual([]);
    view.fit();
    expect(view.zoom).toBe(1);
  });

  test('the drawing does not run away under the hand', () => {
    const { view, plan } = drawn();
    const grip = view.mark(plan.move.follow!.mark);
    const before = view.to.mm;
    grip.take?.({ x: 0, y: 0 }, {} as PointerEvent);
    plan.move.marks[plan.move.follow!.mark]!.y_mm *= 3;
    expect(view.to.mm).toBe(before);
    grip.release?.();
  });

  test('north is turned around the compass, and told in whole degrees', () => {
    const { view, asked } = drawn();
    const middle = { x: 500, y: 350 };
    for (const [x, y, bearing] of [
      [500, 300, 0],
      [450, 350, 90],
      [550, 350, 270],
      [500, 400, 180]
    ] as const) {
      pull(view.north(middle), [0, 0], [x, y]);
      expect(asked.at(-1)).toMatchObject({ path: 'rig.normal_bearing_deg', value: bearing });
    }
  });

  test('what the picture suffers is said in few words', () => {
    const { view, evaluation } = drawn('lamps-on-a-thin-rail');
    const rolls = evaluation.figures['rig.roll']!.value;
    expect(rolls).toBeGreaterThan(2);
    expect(view.suffers.map(({ said }) => said.replace(/\u00a0/g, ' '))).toEqual([
      `the rail sags: ${Number(rolls.toPrecision(3))} px`
    ]);
    expect(drawn().view.suffers).toEqual([]);
  });

  test('a rig without a rail is drawn all the same, and offers no carriage', () => {
    const { view } = drawn(WEIR);
    expect(view.slides).toBeUndefined();
    expect(view.rail.high - view.rail.low).toBe(800);
    expect(Number.isFinite(view.to.mm)).toBe(true);
    view.page = 0;
    expect(Number.isFinite(view.to.x(100))).toBe(true);
  });
});

describe('on the side view', () => {
  test('tilts point to the hand, the lens stays above the ground, marks stand on it', () => {
    const { sheet, asked, plan } = open(HARBOUR);
    const side = new SideState(sheet);
    pull(side.tiltGrip(1), [0, 0], [side.to.x(2000), side.to.y(Math.tan(Math.PI / 15) * 2000)]);
    expect(asked.at(-1)).toMatchObject({ path: 'move.keyframes.1.tilt_deg', value: 12 });
    pull(side.tiltGrip(0), [0, 0], [side.to.x(1), side.to.y(-1e6)]);
    expect(asked.at(-1)!.value).toBe(plan.rig.axes.find((axis) => axis.name === 'tilt')!.low);
    pull(side.lensGrip(), [0, 0], [0, side.to.y(150)]);
    expect(asked.at(-1)).toMatchObject({ path: 'rig.standing.lens_height_mm', value: side.lens + 150 });
    pull(side.lensGrip(), [0, 0], [0, 9e5]);
    expect(asked.at(-1)!.value).toBe(50);
    pull(side.markGrip(0), [0, 0], [0, side.to.y(-side.lens - 700)]);
    expect(asked.at(-1)).toMatchObject({ path: 'move.marks.0.z_mm', value: -side.lens });
    press(side.markGrip(0), 'up');
    expect(asked.at(-1)!.value).toBe(plan.move.marks[0]!.z_mm + 10);
  });

  test('holds what is not much further off than it is wide', () => {
    const { sheet } = open(HARBOUR);
    const side = new SideState(sheet);
    for (const { mark } of side.seen) expect(side.to.x(mark.y_mm)).toBeLessThanOrEqual(side.width);
    expect(side.to.stretched).toBeGreaterThan(0);
    expect(side.knobs.length).toBe(side.move.keyframes.length);
  });
});

describe('a crop', () => {
  test('is moved by as much as the hand, made wider around its middle, and stays in the picture', () => {
    const { sheet, asked, plan } = open(WEIR);
    const view = new CropState(sheet);
    const { across, down } = plan.move.post!.start;
    pull(view.place('start'), [100, 100], [100 + 0.1 * view.kept.w, 100 - 0.2 * view.kept.h]);
    expect(asked.map(({ value }) => value)).toEqual([
      expect.closeTo(across + 0.1, 3),
      expect.closeTo(down - 0.2, 3)
    ]);
    // What the hand does not move stays to the last digit.
    pull(view.place('start'), [100, 100], [100 + 0.1 * view.kept.w, 100]);
    expect(asked.at(-1)).toMatchObject({ path: 'move.post.start.down', value: down });
    pull(view.corner('start'), [0, 0], [4 + view.kept.x + (across + 0.25) * view.kept.w, 0]);
    expect(asked.at(-1)).toMatchObject({ path: 'move.post.start.width', value: 0.5 });
    press(view.corner('end'), 'left', 'coarse');
    expect(asked.at(-1)!.value).toBeCloseTo(plan.move.post!.end.width - 0.05, 6);
    for (const { box } of view.ends) {
      expect(box.x).toBeGreaterThanOrEqual(view.kept.x - 1e-9);
      expect(box.y + box.h).toBeLessThanOrEqual(view.kept.y + view.kept.h + 1e-9);
    }
  });
});

describe('the ease', () => {
  test('is pulled at its corners, and leaves the other one its frames', () => {
    const { sheet, asked } = open(HARBOUR);
    const pace = new PaceState(sheet);
    pull(pace.grip('in'), [0, 0], [pace.x(40), 0]);
    pull(pace.grip('out'), [0, 0], [pace.x(pace.steps - 55), 0]);
    press(pace.grip('in'), 'right', 'coarse');
    pull(pace.grip('in'), [0, 0], [pace.x(pace.steps), 0]);
    const put = asked.map(({ path, value }) => [path.replace('move.ease_', ''), value]);
    const seconds = /_s$/.test(asked[0]!.path);
    const frames = (count: number) => (seconds ? String(Math.round((count / 25) * 1000) / 1000) : count);
    expect(put.map(([, value]) => value)).toEqual([
      frames(40),
      frames(55),
      frames(pace.asked.in + 25),
      frames(pace.steps - pace.asked.out)
    ]);
  });
});

describe('on the span', () => {
  function drawn(name = HARBOUR) {
    const shoot = open(name);
    const span = new SpanView(shoot.sheet);
    span.resize(1200);
    return { ...shoot, span };
  }
  test('the first frame stands at its left, the last at its right, and the hand finds every one', () => {
    const { span, playhead } = drawn();
    expect(span.xOf(0)).toBeCloseTo(LEFT, 6);
    expect(span.xOf(span.frames - 1)).toBeCloseTo(1200 - RIGHT, 6);
    for (const frame of [0, 17, 400, 719]) {
      pull(span.playhead, [span.xOf(frame), 5], [span.xOf(frame), 5]);
      expect(playhead.frame).toBeCloseTo(frame, 6);
    }
  });
  test('keys move the playhead by a frame, with shift by a twentieth', () => {
    const { span, playhead } = drawn();
    press(span.playhead, 'right');
    press(span.playhead, 'up', 'coarse');
    expect(playhead.frame).toBe(1 + Math.round(span.frames / 20));
  });
  test('says the frame, its clock time, where the axes stand and how long it is exposed', () => {
    const { span } = drawn();
    expect(span.flag.text.replace(/\u00a0/g, ' ')).toMatch(
      /^frame 1 · 06:10:00 · slide 40 mm · pan 21\.14° · tilt −2° · 2\.5 s$/
    );
    expect(span.ticks.length).toBeGreaterThan(6);
    expect(span.ticks.every(({ text }) => /^\d\d:(00|15|30|45)$/.test(text))).toBe(true);
    expect(drawn(WEIR).span.ticks[0]!.text).toMatch(/^\d+ \w+$/);
  });
  test('what one stretch of an interval gains the next one loses', () => {
    const { span, asked, plan } = drawn(BARN);
    const [first, second] = changesOf(span.sheet);
    expect(first!.frame).toBeLessThan(second!.frame);
    const lengths =
      plan.frames.source === 'changing' ? plan.frames.segments.map((one) => Number(one.length_s)) : [];
    pull(changeGrip(span, 0), [100, 0], [130, 0]);
    const moved = Math.round((30 / (1200 - LEFT - RIGHT)) * elapsedAt(span.map, span.frames - 1));
    expect(asked.map(({ value }) => Number(value))).toEqual([lengths[0]! + moved, lengths[1]! - moved]);
    asked.length = 0;
    pull(changeGrip(span, 0), [100, 0], [-5000, 0]);
    expect(asked.map(({ value }) => Number(value)).reduce((a, b) => a + b)).toBeCloseTo(
      lengths[0]! + lengths[1]!
    );
    expect(Number(asked[0]!.value)).toBeGreaterThan(0);
  });
});

describe('the rig', () => {
  test('is tried along its rail without changing the plan, and tips where the core says', () => {
    const { sheet, evaluation, asked } = open(QUAY);
    const rig = { ...evaluation.rig!, tips_mm: [100, 700] };
    const view = new RigView(sheet, () => rig);
    const stood = view.now;
    pull(view.carriage, [0, 0], [view.scale.x(view.at + 200), 0]);
    expect(view.now).toBeCloseTo(stood + 200, 4);
    expect(view.tips).toBe(false);
    view.tried = 701;
    expect(view.tips).toBe(true);
    press(view.carriage, 'left');
    expect([view.now, view.tips]).toEqual([691, false]);
    pull(view.carriage, [0, 0], [9e5, 0]);
    expect(view.now).toBe(view.slide!.high);
    expect(asked).toEqual([]);
  });
  test('has its centre of mass between where it is with the carriage at either end', () => {
    const { sheet, evaluation } = open(QUAY);
    const rig = evaluation.rig!;
    const view = new RigView(sheet, () => rig);
    view.tried = view.slide!.low;
    const low = view.centre.x;
    view.tried = view.slide!.high;
    expect(view.centre.x).toBeGreaterThan(low);
    expect([low, view.centre.x]).toEqual(rig.centre_mm.map(([x]) => expect.closeTo(x!, 3)));
    for (const y of view.calls) expect(y).toBeLessThan(400);
  });
});

describe('the bars', () => {
  test('put the interval on the step that can be dialled, and its place on the scale back', () => {
    const { sheet, asked } = open(HARBOUR);
    const bars = new BarsState(sheet);
    for (const [wanted, kept] of [
      [7.3, '7.5'],
      [23.4, '23'],
      [128, '130']
    ] as const) {
      pull(bars.grip, [0, 0], [bars.x(wanted), 0]);
      expect(asked.at(-1)).toMatchObject({ path: 'clip.interval', value: kept });
    }
    press(bars.grip, 'right');
    expect(Number(asked.at(-1)!.value)).toBe(bars.interval! + 1);
    expect(bars.at(0.001)).toBe(4);
    expect(bars.at(1e6)).toBe(bars.right);
  });
});
