/** What the side view shows of the open sheet, and what a hand on it changes: lens height, tilts, heights of marks. */
import { sized, type Grip } from '../../parts/grasp';
import type { Sheet } from '../../sheet/sheet.svelte';
import { leanAt, poseAt, viewAt } from '../finder/pose';
import { placed } from '../labels';
import { farOf, HEIGHT, highOf, LENS_X, rise, scale, tiltTo } from './geometry';

const LEAST_WIDTH = 200;
const LEAST_LENS_MM = 50;

export class SideState {
  page = $state(560);
  /** While something is held the drawing keeps its reach, and from the ground up its height. */
  #frozen = $state.raw<{ far: number; tall: number } | null>(null);
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  // While the page is still being laid out it may have no width at all.
  readonly width = $derived(Math.max(LEAST_WIDTH, this.page));
  readonly move = $derived.by(() => this.#sheet.plan.move);
  readonly lens = $derived.by(() => this.#sheet.plan.rig.standing?.lens_height_mm ?? 1500);
  readonly slope = $derived.by(() => this.#sheet.plan.rig.standing?.slope_deg ?? 0);
  readonly tilts = $derived.by(() => this.#sheet.plan.rig.axes.find((axis) => axis.name === 'tilt'));
  readonly marks = $derived(
    this.move.marks
      .map((mark, index) => ({ mark, index }))
      .filter(({ mark }) => mark.form !== 'bearing' && mark.y_mm > 0)
  );
  readonly #standing = $derived(this.marks.map(({ mark }) => mark));
  readonly far = $derived(this.#frozen?.far ?? farOf(this.width, this.lens, this.#standing));
  readonly #high = $derived(this.#frozen ? this.#frozen.tall - this.lens : highOf(this.far, this.#standing));
  readonly to = $derived(scale(this.width, this.lens, this.far, this.#high));
  readonly seen = $derived(this.marks.filter(({ mark }) => mark.y_mm <= this.far * 1.02));
  /** The lower edge, the middle and the upper edge of the view, where the drawing ends. Millimetres. */
  readonly rays = $derived.by(() => {
    const pose = poseAt(this.#sheet.evaluation, this.#sheet.playhead.frame);
    const half = viewAt(this.#sheet.evaluation, pose ?? { focal: this.#sheet.plan.camera.focal_mm })[1] / 2;
    const tilt = pose?.tilt ?? 0;
    return [tilt - half, tilt, tilt + half].map((angle) => rise(angle, this.far)) as [number, number, number];
  });
  /** The tilts that can be taken hold of, each further out than the one before. */
  readonly knobs = $derived(
    (this.tilts ? this.move.keyframes : this.move.keyframes.slice(0, 1)).map(({ tilt_deg }, n) => {
      const at = this.far * (0.3 + 0.09 * n);
      return { tilt: tilt_deg, x: this.to.x(at), y: this.to.y(rise(tilt_deg + this.#aside(n), at)) };
    })
  );

  /** The name of each mark, where it has room. */
  readonly labels = $derived.by(() => {
    const things = this.seen.map(({ mark }) => ({
      x: this.to.x(mark.y_mm),
      y: this.to.y(mark.z_mm) - 5,
      reach: 7,
      lines: [mark.name]
    }));
    const taken = [
      { left: 0, right: LENS_X - 4, top: this.to.y(0) - 12, bottom: this.to.y(0) + 22 },
      { left: 0, right: 120, top: 0, bottom: this.slope ? 16 : 0 },
      { left: this.width - 190, right: this.width, top: HEIGHT - 14, bottom: HEIGHT },
      ...this.knobs.map(({ x, y }) => ({ left: x - 8, right: x + 8, top: y - 20, bottom: y + 8 })),
      ...things.map(({ x, y }) => ({ left: x - 5, right: x + 5, top: y + 2, bottom: y + 8 }))
    ];
    const room = { left: 2, right: this.width - 2, top: 0, bottom: HEIGHT };
    return placed(things, taken, room).map((at, n) => ({ at, lines: things[n]!.lines }));
  });

  /** A leaned pan looks higher or lower than it is tilted. */
  #aside(n: number): number {
    return leanAt(this.#sheet.evaluation, this.#sheet.plan, n).tilt;
  }

  lensGrip(): Grip {
    const raise = (mm: number, merge: string) =>
      void this.#sheet.set('rig.standing.lens_height_mm', Math.round(Math.max(LEAST_LENS_MM, mm)), merge);
    return this.#grip('height of the lens', {
      drag: ({ at, merge }) => raise(this.lens + this.to.mmY(at.y), merge),
      nudge: ({ way, size, merge }) => raise(this.lens + way * sized(size, 10, 100, 1), merge)
    });
  }

  tiltGrip(n: number): Grip {
    const put = (tilt: number, merge: string) => {
      const [low, high] = [Math.max(-90, this.tilts?.low ?? -90), Math.min(90, this.tilts?.high ?? 90)];
      const kept = Number(Math.min(high, Math.max(low, tilt)).toFixed(1));
      void this.#sheet.set(`move.keyframes.${n}.tilt_deg`, kept, merge);
    };
    return this.#grip(`tilt ${n}`, {
      drag: ({ at, merge }) => put(tiltTo(this.to.mmX(at.x), this.to.mmY(at.y)) - this.#aside(n), merge),
      nudge: ({ way, size, merge }) =>
        put(this.move.keyframes[n]!.tilt_deg + way * sized(size, 0.5, 5, 0.05), merge)
    });
  }

  markGrip(index: number): Grip {
    const put = (z: number, merge: string) =>
      void this.#sheet.set(`move.marks.${index}.z_mm`, Math.round(Math.max(-this.lens, z)), merge);
    return this.#grip(`height of mark ${index}`, {
      drag: ({ at, merge }) => put(this.to.mmY(at.y), merge),
      nudge: ({ way, size, merge }) =>
        put(this.move.marks[index]!.z_mm + way * sized(size, 10, 100, 1), merge)
    });
  }

  #grip(name: string, acts: Pick<Grip, 'drag' | 'nudge'>): Grip {
    return {
      name,
      ...acts,
      take: () => {
        this.#frozen = { far: this.far, tall: this.lens + this.#high };
      },
      release: () => {
        this.#frozen = null;
      }
    };
  }
}
