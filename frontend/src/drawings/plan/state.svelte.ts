/** What the plan drawing shows of the open sheet, to scale, and what a hand on it changes. */
import { range } from 'd3-array';
import { fill, number, write } from '../../format';
import { sized, within, type Grip, type Nudge, type Point } from '../../parts/grasp';
import type { Sheet } from '../../sheet/sheet.svelte';
import { around, boxOf, placed, wideOf, type Box } from '../labels';
import { leanAt, moonAt, poseAt, skyAt, sunAt, viewAt, type Pose } from '../finder/pose';
import * as plan from './geometry';

export const THUMB = 12;
const LEAST_WIDTH = 160;
const NARROW = 480;
const LEAST_ZOOM = 0.5;
const MOST_ZOOM = 40;
/** Outlines of the view that together draw what it sweeps. */
const SWEPT = 14;
const SUN_POINTS = 24;
/** Room under the rail for the boxes and the dimension, with two keyframes and with more. */
const UNDER = [62, 92] as const;

const MOST_SUFFERED = 4;

const turned = (bearing: number) => (bearing + 720) % 360;
/** Whether a mark goes with the sky: no hand moves it. */
const led = (mark: Sheet['plan']['move']['marks'][number]) =>
  mark.form === 'bearing' && (mark.body ?? 'still') !== 'still';

export class PlanView {
  page = $state(560);
  height = $state(400);
  zoom = $state(1);
  /** While something is held the frame stands still, so that the drawing does not run away under the hand. */
  #frozen = $state.raw<ReturnType<typeof plan.content> | null>(null);
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  // While the page is still being laid out it may have no width at all.
  readonly width = $derived(Math.max(LEAST_WIDTH, this.page));
  readonly move = $derived.by(() => this.#sheet.plan.move);
  readonly keys = $derived(this.move.keyframes);
  readonly slides = $derived.by(() => this.#axis('slide'));
  readonly turns = $derived.by(() => this.#axis('pan'));
  readonly led = $derived(!!this.move.follow?.every_frame);
  // Without a rail the camera stands where the keyframes have it, with as much room drawn around it.
  readonly rail = $derived(this.slides ?? { low: -400, high: 400 });
  readonly head = $derived(this.turns ?? { low: -180, high: 180 });
  /** The bearing that the rail faces, while it is known. */
  readonly normal = $derived.by(() => this.#sheet.plan.rig.normal_bearing_deg ?? null);
  /** A sloping rail is shorter from above. */
  readonly slope = $derived.by(() =>
    Math.cos(((this.#sheet.plan.rig.standing?.slope_deg ?? 0) * Math.PI) / 180)
  );
  readonly marks = $derived(this.move.marks.map((mark, index) => ({ mark, index })));
  readonly placed = $derived(this.marks.filter(({ mark }) => mark.form !== 'bearing'));

  /** Whether the camera looks behind itself on its way, or is to keep something there. */
  readonly #looksBack = $derived.by(() => {
    const half = this.viewOf(undefined) / 2;
    const beyond = (pan: number) => Math.abs(((pan + 540) % 360) - 180) + half > 100;
    const { mark } = this.move.follow ?? {};
    const followed = mark === undefined ? undefined : this.move.marks[mark];
    return this.keys.some(({ pan_deg }) => beyond(pan_deg)) || (followed?.y_mm ?? 0) < 0;
  });

  #content() {
    const { mark } = this.move.follow ?? {};
    return plan.content(
      this.rail.low,
      this.rail.high,
      this.placed.map((one) => one.mark.y_mm),
      mark === undefined ? undefined : this.move.marks[mark]?.y_mm,
      this.zoom,
      this.#looksBack
    );
  }
  readonly frame = $derived({
    width: this.width,
    height: this.height,
    under: UNDER[this.keys.length > 2 ? 1 : 0],
    ...(this.#frozen ?? this.#content())
  });
  readonly to = $derived(plan.scale(this.frame));
  readonly reach = $derived(this.frame.far * 0.86);
  readonly grip = $derived(this.reach * 0.6);
  readonly grid = $derived(plan.square(this.to.mmX(this.width) - this.to.mmX(0)));
  readonly gridX = $derived(plan.multiples(this.to.mmX(0), this.to.mmX(this.width), this.grid));
  readonly gridY = $derived(plan.multiples(Math.min(0, this.to.mmY(this.height)), this.to.mmY(0), this.grid));

  readonly now = $derived.by(() => poseAt(this.#sheet.evaluation, this.#sheet.playhead.frame));
  readonly sun = $derived.by(() => sunAt(this.#sheet.evaluation, this.#sheet.playhead.frame));
  readonly swept = $derived.by(() =>
    this.#sampled(SWEPT)
      .map((frame) => poseAt(this.#sheet.evaluation, frame))
      .filter((pose): pose is Pose => pose !== null)
  );
  readonly sunPath = $derived.by(() => {
    const normal = this.normal;
    if (normal === null || !this.#sheet.evaluation.view?.sun) return '';
    const seen = this.#sampled(SUN_POINTS).map((frame) => sunAt(this.#sheet.evaluation, frame));
    return plan.sunWay(
      seen.map((sun) => (sun?.azimuth ?? 0) - normal),
      26
    );
  });
  readonly moon = $derived.by(() => moonAt(this.#sheet.evaluation, this.#sheet.playhead.frame));
  readonly moonPath = $derived.by(() => {
    const normal = this.normal;
    if (normal === null || !this.#sheet.evaluation.view?.moon) return '';
    const seen = this.#sampled(SUN_POINTS).map((frame) => moonAt(this.#sheet.evaluation, frame));
    return plan.sunWay(
      seen.map((moon) => (moon?.azimuth ?? 0) - normal),
      20
    );
  });
  /** Where the pace of the picture is too quick: the worst frame, on the rail. */
  readonly quick = $derived.by(() =>
    this.#sheet.evaluation.snags.find((snag) => /^move-(quick|strobes)$/.test(snag.code))
  );
  /** What the picture suffers, in few words, told at the foot of the drawing. */
  readonly suffers = $derived.by(() =>
    this.#sheet.evaluation.snags
      .filter((snag) => snag.short)
      .map((snag) => ({ snag, said: fill(snag.short, snag.slots, this.#sheet.zone) }))
      .slice(0, MOST_SUFFERED)
  );

  /** Along the rail where each keyframe stands, in pixels, and the row in which its box has room. */
  readonly stands = $derived(this.keys.map((_, n) => this.to.x(this.along(n))));
  readonly rows = $derived(plan.rows(this.stands, THUMB * 2 + 2, 2));
  readonly here = $derived(this.placed.filter(({ mark }) => this.#inside(mark.x_mm, mark.y_mm)));
  readonly distant = $derived(
    [
      ...this.placed
        .filter(({ mark }) => !this.#inside(mark.x_mm, mark.y_mm))
        .map((one) => ({ ...one, at: this.#edge(one.mark.x_mm, one.mark.y_mm) })),
      ...this.marks
        .filter(({ mark }) => mark.form === 'bearing')
        .map((one) => ({ ...one, at: this.#bearingEdge(this.#bearing(one.index)) }))
    ].sort((a, b) => a.at.x - b.at.x)
  );

  /** The head of each keyframe: where it is taken hold of, and what is written beside it. */
  readonly heads = $derived(
    this.keys.map((key, n) => {
      const far = this.grip * (1 - 0.11 * (n % 4));
      const [x, y] = plan.ahead(this.along(n), this.panAt(n), far);
      const outer = n === 0 || n === this.keys.length - 1;
      const said = outer ? ` ${write(Number(key.pan_deg.toFixed(1)), 'deg')}` : '';
      return { x: this.to.x(x), y: this.to.y(y), outer, lines: [`${n + 1}${said}`] };
    })
  );
  /** What is written on the drawing: the heads, the marks on it, and those beyond its edge; each where it has room. */
  readonly labels = $derived.by(() => {
    const heads = this.turns && !this.led ? this.heads.map((head) => ({ ...head, reach: 11 })) : [];
    const here = this.here.map(({ mark, index }) => ({
      x: this.to.x(mark.x_mm),
      y: this.to.y(mark.y_mm),
      reach: Math.min(this.half(index), 40) + 6,
      lines: [mark.name, this.#offRail(mark.y_mm, index)]
    }));
    const distant = this.distant.map(({ mark, at }) => ({
      x: at.x,
      y: at.y,
      reach: 9,
      lines: [mark.form === 'bearing' ? mark.name : `${mark.name}, ${number(mark.y_mm / 1000, 2)} m`]
    }));
    const all = [...heads, ...here, ...distant];
    const room = { left: 2, right: this.width - 2, top: 0, bottom: this.height };
    const found = placed(all, this.#taken(), room).map((at, n) => ({ at, lines: all[n]!.lines }));
    const [first, second] = [heads.length, heads.length + here.length];
    return { heads: found.slice(0, first), here: found.slice(first, second), distant: found.slice(second) };
  });

  /** Where no label may lie: what can be taken hold of, the rail with its dimension, and what stands in the corners. */
  #taken(): Box[] {
    const base = this.to.y(0);
    const corner = { left: 0, right: wideOf('squares of 000 mm') + 6, top: 0, bottom: 18 };
    // On a phone the buttons are as large as a finger.
    const [wide, tall] = this.page < NARROW ? [170, 52] : [150, 30];
    const buttons = { left: this.width - wide, right: this.width, top: 0, bottom: tall };
    const under = { left: 0, right: this.width, top: base - 12, bottom: base + this.frame.under };
    const suffered = this.suffers.map(({ said }, n) =>
      boxOf({ x: 6, y: this.height - 8 - 14 * n, anchor: 'start' }, [`Mind: ${said}`])
    );
    return [
      corner,
      buttons,
      ...(this.slides ? [under] : []),
      ...suffered,
      around(this.width - 46, this.height - 46, 40),
      ...(this.turns && !this.led ? this.heads.map(({ x, y }) => around(x, y, 8)) : []),
      ...this.here.map(({ mark }) => around(this.to.x(mark.x_mm), this.to.y(mark.y_mm), 9)),
      ...this.distant.map(({ at }) => around(at.x, at.y, 8))
    ];
  }

  #offRail(mm: number, index: number): string {
    const from = this.slides ? 'the rail' : 'the camera';
    return `${number(mm / 1000, 3)} m off ${from}${this.move.follow?.mark === index ? ', followed' : ''}`;
  }

  /** The field of view across at a pose. */
  viewOf(pose: Pose | undefined): number {
    return viewAt(this.#sheet.evaluation, pose ?? { focal: this.#sheet.plan.camera.focal_mm })[0];
  }

  /** Where the camera stands at a keyframe, on the level along the rail; at nought where there is none. */
  along(n: number): number {
    return this.slides ? this.keys[n]!.slide_mm * this.slope : 0;
  }

  /** The pan of a keyframe as it is drawn: led by what is followed, or its own. */
  panAt(n: number): number {
    if (!this.led) return this.keys[n]!.pan_deg + this.#aside(n);
    const frame = this.#sheet.evaluation.view?.keyframes[n] ?? 0;
    return poseAt(this.#sheet.evaluation, frame)?.pan ?? 0;
  }

  /** Half the width of a mark as drawn, in pixels. */
  half(index: number): number {
    return Math.max(7, (this.move.marks[index]!.width_mm * this.to.mm) / 2);
  }

  carriage(n: number): Grip {
    const put = (value: number, merge: string) =>
      void this.#sheet.set(
        `move.keyframes.${n}.slide_mm`,
        Number(within(value, this.rail.low, this.rail.high).toFixed(1)),
        merge
      );
    return this.#grip(`carriage ${n}`, {
      drag: ({ at, merge }) => put(this.to.mmX(at.x) / this.slope, merge),
      nudge: ({ way, size, merge }) => put(this.keys[n]!.slide_mm + way * sized(size, 1, 10, 0.1), merge)
    });
  }

  pan(n: number): Grip {
    const put = (value: number, merge: string) =>
      void this.#sheet.set(
        `move.keyframes.${n}.pan_deg`,
        Number(within(value, this.head.low, this.head.high).toFixed(2)),
        merge
      );
    return this.#grip(`pan ${n}`, {
      drag: ({ at, merge }) => put(this.#pointing(this.along(n), at) - this.#aside(n), merge),
      nudge: ({ way, size, merge }) => put(this.keys[n]!.pan_deg + way * sized(size, 0.5, 5, 0.05), merge)
    });
  }

  /** The mark in the hand as it stood when it was taken: a drag redraws the page, and makes its grip anew. */
  #takenMark: Sheet['plan']['move']['marks'][number] | undefined;

  mark(index: number): Grip {
    const grip = this.#grip(`mark ${index}`, {
      drag: ({ at, by, merge }) => {
        const taken = this.#takenMark;
        if (!taken || led(taken)) return;
        if (taken.form === 'bearing')
          return this.#bear(index, this.#pointing(this.#middle, at) + (this.normal ?? 0), merge);
        this.#stand(
          index,
          by.x ? Math.round(taken.x_mm + this.to.mmX(by.x) - this.to.mmX(0)) : taken.x_mm,
          by.y ? Math.round(taken.y_mm + this.to.mmY(by.y) - this.to.mmY(0)) : taken.y_mm,
          merge
        );
      },
      nudge: (nudge) => this.#nudgeMark(index, nudge)
    });
    return {
      ...grip,
      take: (at, event) => {
        this.#takenMark = this.move.marks[index];
        return grip.take?.(at, event);
      }
    };
  }

  /** A mark beyond the drawing: a bearing is turned; what is only far away is moved with the keys. */
  beyond(index: number): Grip {
    return {
      ...this.mark(index),
      take: () => this.move.marks[index]!.form === 'bearing' && !led(this.move.marks[index]!)
    };
  }

  north(middle: Point): Grip {
    return this.#grip('north', {
      drag: ({ at, merge }) =>
        this.#face((-Math.atan2(at.x - middle.x, middle.y - at.y) * 180) / Math.PI, merge),
      nudge: ({ way, size, merge }) => this.#face((this.normal ?? 0) + way * sized(size, 1, 10, 0.1), merge)
    });
  }

  zoomBy(factor: number): void {
    this.zoom = within(this.zoom * factor, LEAST_ZOOM, MOST_ZOOM);
  }

  /** All that stands on the drawing, or just the rail and what is near it. */
  fit(): void {
    if (this.zoom > 1.01) {
      this.zoom = 1;
      return;
    }
    const places = this.placed.map(({ mark }) => [mark.x_mm, mark.y_mm] as [number, number]);
    this.zoom = within(plan.zoomForAll(places, this.#content().far), 1, MOST_ZOOM);
  }

  /** A leaned pan looks aside of what it is turned to. */
  #aside(n: number): number {
    return leanAt(this.#sheet.evaluation, this.#sheet.plan, n).pan;
  }

  #axis(name: 'slide' | 'pan') {
    return this.#sheet.plan.rig.axes.find((axis) => axis.name === name);
  }

  #sampled(count: number): number[] {
    const last = (this.#sheet.evaluation.frames ?? 1) - 1;
    return range(count).map((n) => (last * n) / (count - 1));
  }

  get #middle(): number {
    return (this.rail.low + this.rail.high) / 2;
  }

  #inside(x: number, y: number): boolean {
    const [px, py] = [this.to.x(x), this.to.y(y)];
    return px > 8 && px < this.width - 8 && py > 10 && py < this.height - 6;
  }

  #edge(x: number, y: number): plan.Pointed {
    const from: [number, number] = [this.to.x(this.#middle), this.to.y(0)];
    return plan.edge(from, [this.to.x(x), this.to.y(y)], this.width, this.height);
  }

  /** The bearing of a direction: where it stands now, for what goes with the sky. */
  #bearing(index: number): number {
    const { evaluation, playhead } = this.#sheet;
    return skyAt(evaluation, index, playhead.frame)?.azimuth ?? this.move.marks[index]!.bearing_deg;
  }

  #bearingEdge(bearing: number): plan.Pointed {
    return this.#edge(...plan.ahead(this.#middle, bearing - (this.normal ?? 0), this.frame.far * 50));
  }

  #pointing(from: number, at: Point): number {
    return plan.pointing(from, this.to.mmX(at.x), this.to.mmY(at.y));
  }

  #grip(name: string, acts: Pick<Grip, 'drag' | 'nudge'>): Grip {
    return {
      name,
      ...acts,
      take: () => {
        this.#frozen = this.#content();
      },
      release: () => {
        this.#frozen = null;
      }
    };
  }

  /** The bearing that the rail faces; turning north to the left turns the rail to the right. */
  #face(bearing: number, merge: string): void {
    void this.#sheet.set('rig.normal_bearing_deg', Math.round(turned(bearing)) % 360, merge);
  }

  #bear(index: number, bearing: number, merge: string): void {
    void this.#sheet.set(`move.marks.${index}.bearing_deg`, Number(turned(bearing).toFixed(1)), merge);
  }

  #stand(index: number, x: number, y: number, merge: string): void {
    const put = (field: string, value: number) =>
      ({ do: 'set', path: `move.marks.${index}.${field}`, value }) as const;
    void this.#sheet.change([put('x_mm', x), put('y_mm', y)], merge);
  }

  #nudgeMark(index: number, { right, up, way, size, merge }: Nudge): void {
    const mark = this.move.marks[index]!;
    if (led(mark)) return;
    if (mark.form === 'bearing')
      return this.#bear(index, mark.bearing_deg + way * sized(size, 1, 10, 0.1), merge);
    const by = sized(size, 10, 100, 1);
    this.#stand(
      index,
      right ? Math.round(mark.x_mm + right * by) : mark.x_mm,
      up ? Math.round(mark.y_mm + up * by) : mark.y_mm,
      merge
    );
  }
}
