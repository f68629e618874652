/** The pace of the move over its frames, and the corners by which it is eased in and out. */
import { sized, type Grip } from '../../parts/grasp';
import { exact } from '../../parts/paths';
import { framesOf } from '../../sheet/series';
import type { Sheet } from '../../sheet/sheet.svelte';
import { path } from '../span/geometry';

export const WIDTH = 280;
export const TOP = 12;
export const BASE = 58;
const SIDE = 8;
export type End = 'in' | 'out';

export class PaceState {
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  readonly steps = $derived.by(() =>
    Math.max(1, (this.#sheet.figure('clip.moving')?.value ?? this.#sheet.evaluation.frames ?? 2) - 1)
  );
  readonly #rate = $derived.by(() => this.#sheet.quantity('rate')?.value ?? 25);
  /** As asked for, counted in frames. */
  readonly asked = $derived({ in: this.#counted('in'), out: this.#counted('out') });
  /** The corners as they are used: the evaluation has shortened eases that did not fit. */
  readonly corners = $derived([
    { end: 'in' as const, frames: this.asked.in, x: this.x(this.#used('in')) },
    { end: 'out' as const, frames: this.asked.out, x: this.x(this.steps - this.#used('out')) }
  ]);
  /** How fast the picture passes in the end, all axes and keyframes taken together. */
  readonly passing = $derived.by(() => {
    const passed = this.#sheet.evaluation.view?.shift_share;
    const most = Math.max(...(passed?.values ?? []), 0);
    if (!passed || most === 0) return '';
    // After the last frame nothing passes any more.
    const frames = framesOf(passed, this.#sheet.evaluation.frames ?? 1);
    const last = frames.at(-1) || 1;
    return path(
      frames.slice(0, -1).map((frame) => SIDE + (frame / last) * (WIDTH - 2 * SIDE)),
      passed.values.map((value) => BASE - (value / most) * (BASE - TOP - 8))
    );
  });
  readonly now = $derived.by(() => this.x(this.#sheet.playhead.at));

  x(frame: number): number {
    return SIDE + (frame / this.steps) * (WIDTH - 2 * SIDE);
  }

  grip(end: End): Grip {
    return {
      name: `ease ${end}`,
      drag: ({ at, merge }) => {
        const frame = ((at.x - SIDE) / (WIDTH - 2 * SIDE)) * this.steps;
        this.#put(end, end === 'in' ? frame : this.steps - frame, merge);
      },
      nudge: ({ way, size, merge }) => this.#put(end, this.asked[end] + way * sized(size, 1, 25), merge)
    };
  }

  /** Eases are typed in frames, or in seconds of clip. */
  #counted(end: End): number {
    const { move } = this.#sheet.plan;
    const seconds = move[`ease_${end}_s`];
    return typeof seconds === 'string' ? Math.round(exact(seconds) * this.#rate) : move[`ease_${end}_frames`];
  }

  #used(end: End): number {
    return (this.#sheet.figure(`move.ease_${end}`)?.value ?? 0) * (this.#sheet.quantity('rate')?.value ?? 0);
  }

  #put(end: End, frames: number, merge: string): void {
    const other = this.asked[end === 'in' ? 'out' : 'in'];
    const kept = Math.round(Math.min(Math.max(0, frames), Math.max(0, this.steps - other)));
    const inSeconds = typeof this.#sheet.plan.move[`ease_${end}_s`] === 'string';
    if (!inSeconds) void this.#sheet.set(`move.ease_${end}_frames`, kept, merge);
    else
      void this.#sheet.set(
        `move.ease_${end}_s`,
        String(Math.round((kept / this.#rate) * 1000) / 1000),
        merge
      );
  }
}
