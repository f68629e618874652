/** What a leaned pan draws: where it looks, how it rolls there, and the hand that leans it. Degrees. */
import { sized, within, type Grip, type Point } from '../../parts/grasp';
import { framesOf, valuesOf } from '../../sheet/series';
import type { Sheet } from '../../sheet/sheet.svelte';
import { poseAt, viewAt } from '../finder/pose';
import { path } from '../span/geometry';

export const MOST_LEAN = 80;
const LEAST_WIDTH = 200;
/** Drawn over and under the horizon in any case. */
const LEAST_HIGH = 34;

export class ArcState {
  page = $state(330);
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  readonly number = $derived.by(() => this.#sheet.plan.rig.axes.findIndex(({ name }) => name === 'pan'));
  readonly lean = $derived.by(() => this.#sheet.plan.rig.axes[this.number]?.lean_deg ?? 0);
  readonly toward = $derived.by(() => this.#sheet.plan.rig.axes[this.number]?.lean_toward_deg ?? 0);
  readonly width = $derived(Math.max(LEAST_WIDTH, this.page));
  /** As wide as once around, to the same scale both ways. */
  readonly #px = $derived(this.width / 360);
  readonly #poses = $derived.by(() => this.#sheet.evaluation.view?.poses);
  readonly #high = $derived.by(() => {
    const heights = this.#poses?.tilt ? valuesOf(this.#poses.tilt) : [];
    const [, upright] = viewAt(this.#sheet.evaluation, this.now);
    const most = Math.max(LEAST_HIGH, this.lean, ...heights.map((height) => Math.abs(height) + upright / 2));
    return Math.min(90, most + 6);
  });
  readonly height = $derived(2 * this.#high * this.#px);
  readonly now = $derived.by(() => poseAt(this.#sheet.evaluation, this.#sheet.playhead.frame));
  readonly level = $derived.by(() => {
    const points = this.#sheet.evaluation.level ?? [];
    return path(
      points.map(([bearing = 0]) => this.x(bearing)),
      points.map(([, height = 0]) => this.y(height))
    );
  });
  /** The way of the picture's middle over the shoot. */
  readonly way = $derived.by(() => {
    const [pan, tilt] = [this.#poses?.pan, this.#poses?.tilt];
    if (!pan || !tilt) return '';
    const count = this.#sheet.evaluation.frames ?? 1;
    const frames = [...new Set([...framesOf(pan, count), ...framesOf(tilt, count)])].sort((a, b) => a - b);
    const stands = frames.map((frame) => poseAt(this.#sheet.evaluation, frame)!);
    return path(
      stands.map((pose) => this.x(pose.pan)),
      stands.map((pose) => this.y(pose.tilt))
    );
  });
  /** The picture at the first frame, at the playhead and at the last. */
  readonly pictures = $derived.by(() => {
    const last = (this.#sheet.evaluation.frames ?? 1) - 1;
    const shown = [0, last].map((frame) => poseAt(this.#sheet.evaluation, frame));
    return [...shown, this.now].flatMap((pose, n) => {
      if (!pose) return [];
      const [across, upright] = viewAt(this.#sheet.evaluation, pose).map((angle) => angle * this.#px);
      const [x, y] = [this.x(pose.pan), this.y(pose.tilt)];
      return [{ n, x, y, w: across!, h: upright!, turned: pose.roll, now: n === 2 }];
    });
  });

  x(bearing: number): number {
    return (bearing + 180) * this.#px;
  }

  y(height: number): number {
    return (this.#high - height) * this.#px;
  }

  #taken = { down: 0, toward: 0 };

  grip(): Grip {
    return {
      name: 'lean of the pan',
      take: () => {
        this.#taken = { down: -this.lean, toward: this.toward };
      },
      drag: ({ by, merge }) =>
        this.#put(this.#taken.down - by.y / this.#px, this.#taken.toward + by.x / this.#px, merge, by),
      nudge: ({ right, up, size, merge }) =>
        this.#put(
          -this.lean + up * sized(size, 0.5, 5, 0.1),
          this.toward + right * sized(size, 1, 10, 0.1),
          merge
        )
    };
  }

  /** The camera looks down by the lean where it leans to. */
  #put(down: number, toward: number, merge: string, by: Point = { x: 1, y: 1 }): void {
    const axis = `rig.axes.${this.number}`;
    // What the hand has not moved stays as it was typed, to its last digit.
    const rounded = (value: number, moved: number) => (moved ? Number(value.toFixed(1)) : value);
    const edits = [
      { path: `${axis}.lean_deg`, value: rounded(within(-down, 0, MOST_LEAN), by.y) },
      { path: `${axis}.lean_toward_deg`, value: rounded(within(toward, -180, 180), by.x) }
    ];
    void this.#sheet.change([{ do: 'edits', edits }], merge);
  }
}
