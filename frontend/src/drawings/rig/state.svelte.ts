/** The rig as it is drawn from the side: to scale, with its carriage where the playhead is or where it is pulled. */
import type { RigState } from '../../api/client';
import { write } from '../../format';
import { sized, type Grip } from '../../parts/grasp';
import { at as valueAt } from '../../sheet/series';
import type { Sheet } from '../../sheet/sheet.svelte';
import { boxOf, scaleFor, spread } from './geometry';

export const TALL = 410;
export const GROUND = 372;
/** The callouts' own width, and how wide the page has to be for them. */
const CALLS = 250;
const ROOM_FOR_CALLS = 640;
const LEAST_WIDTH = 280;
export type Part = RigState['parts'][number];

export class RigView {
  page = $state(880);
  /** Where the carriage is being pulled to, while somebody tries it. Millimetres. */
  tried = $state<number | null>(null);
  readonly #sheet: Sheet;
  readonly #rig: () => RigState;

  constructor(sheet: Sheet, rig: () => RigState) {
    this.#sheet = sheet;
    this.#rig = rig;
  }

  readonly rig = $derived.by(() => this.#rig());
  readonly side = $derived(this.page > ROOM_FOR_CALLS ? CALLS : 0);
  readonly width = $derived(Math.max(LEAST_WIDTH, this.page - this.side));
  readonly scale = $derived(scaleFor(boxOf(this.rig), this.width, TALL, GROUND));
  readonly pieces = $derived(this.rig.parts.filter((part) => part.kind !== 'support'));
  readonly stands = $derived(this.rig.parts.filter((part) => part.kind === 'support'));
  readonly rail = $derived(this.rig.parts.find((part) => part.form === 'linear' && !part.rides));
  readonly slide = $derived.by(() => this.#sheet.plan.rig.axes.find((axis) => axis.name === 'slide'));

  // The carriage stands where the playhead is, or where it is being pulled to.
  readonly now = $derived.by(() => {
    if (!this.slide) return 0;
    if (this.tried !== null) return this.tried;
    const path = this.#sheet.evaluation.traces?.axes.slide;
    return path ? valueAt(path, this.#sheet.playhead.at) : this.#low;
  });
  readonly #low = $derived.by(() => Math.min(...this.#sheet.plan.move.keyframes.map((key) => key.slide_mm)));
  readonly #ends = $derived([this.rig.carriage_mm[0] ?? 0, this.rig.carriage_mm[1] ?? 0] as const);
  readonly first = $derived(this.rig.parts.find((part) => part.rides)?.x_mm ?? 0);
  /** Where the carriage is drawn, in the drawing's millimetres. */
  readonly at = $derived(this.#ends[0] + (this.slide ? this.now - this.#low : 0));
  readonly ghosts = $derived(
    this.slide && Math.abs(this.#ends[1] - this.#ends[0]) > 1 ? [...this.#ends] : []
  );
  /** What is clamped or stands on a table holds by itself. */
  readonly onFeet = $derived(this.rig.hold_mm.length > 0);
  readonly hold = $derived([this.rig.hold_mm[0] ?? 0, this.rig.hold_mm[1] ?? 0] as const);
  // The centre of mass goes straight from one end of the travel to the other.
  readonly centre = $derived.by(() => {
    const [first = 0, last = 0] = this.rig.ends_mm;
    const [here = [], there = []] = this.rig.centre_mm;
    const share = last > first ? (this.at - first) / (last - first) : 0;
    const between = (i: number) => (here[i] ?? 0) + share * ((there[i] ?? 0) - (here[i] ?? 0));
    return { x: between(0), y: between(1) };
  });
  readonly tips = $derived.by(() => {
    const [below, above] = this.rig.tips_mm;
    if (!this.slide) return this.rig.tips;
    return this.now < (below ?? -Infinity) || this.now > (above ?? Infinity);
  });
  readonly listed = $derived(
    [
      ...this.stands.slice(0, 1),
      ...this.pieces.filter((part) => !(part.form === 'linear' && part.rides))
    ].reverse()
  );
  readonly calls = $derived(
    spread(
      this.listed.map((part) => this.scale.y(part.y_mm + part.height_mm / 2)),
      40,
      24,
      GROUND - 26
    )
  );
  readonly words = $derived(
    `Seen from the side: ${this.rig.parts.map((part) => part.name).join(', ')}. ` +
      `Centre of mass ${write(this.centre.x, 'mm')} along and ${write(this.centre.y, 'mm')} up` +
      `${this.tips ? ': it tips' : ''}.`
  );

  /** Where a part is drawn: what rides goes with the carriage. */
  placed(part: Part): number {
    return part.x_mm + (part.rides ? this.at - this.first : 0);
  }

  /** What a part carries at most, in grams, where that is known. */
  carries(index: number): number | undefined {
    return this.#sheet.figure(`rig.carried.${index}`)?.value;
  }

  /** The carriage, to see where the rig would tip. Nothing of the plan changes. */
  readonly carriage: Grip = {
    name: 'carriage tried',
    drag: ({ at }) => this.#try((at.x - this.scale.x(0)) / this.scale.px(1) - this.#ends[0] + this.#low),
    atOnce: true,
    nudge: ({ way, size }) => this.#try(this.now + way * sized(size, 10, 100, 1))
  };

  #try(mm: number): void {
    if (this.slide) this.tried = Math.max(this.slide.low, Math.min(this.slide.high, mm));
  }
}
