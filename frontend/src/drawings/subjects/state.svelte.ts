/** The bars of intervals that suit a subject, and the interval of the open shoot among them. */
import { scaleLog } from 'd3-scale';
import { api, sentence, type StartingPoint } from '../../api/client';
import { sized, type Grip } from '../../parts/grasp';
import { exact } from '../../parts/paths';
import type { Sheet } from '../../sheet/sheet.svelte';
import { rowsOf } from './geometry';

export const ROW = 20;
const AGAIN_MS = 2000;
const LEAST_WIDTH = 280;
const SHORTEST_S = 1;
const LONGEST_S = 1800;
const TICKS = {
  wide: [1, 2, 3, 5, 8, 10, 15, 20, 30, 60, 120, 300, 600, 1800],
  narrow: [1, 3, 10, 30, 120, 600, 1800]
};

export class BarsState {
  page = $state(880);
  points = $state.raw<StartingPoint[]>([]);
  trouble = $state('');
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  readonly width = $derived(Math.max(LEAST_WIDTH, this.page));
  readonly right = $derived(this.width - 20);
  readonly x = $derived(scaleLog([SHORTEST_S, LONGEST_S], [4, this.right]));
  readonly rows = $derived(
    rowsOf(this.points, (point) => [this.x(point.low_s), this.x(point.high_s)], 6.1, this.width)
  );
  readonly tall = $derived(this.rows.reduce((most, row) => Math.max(most, row.row + 1), 0) * ROW + 26);
  readonly ticks = $derived(this.width > 560 ? TICKS.wide : TICKS.narrow);
  readonly interval = $derived.by(() => this.#sheet.quantity('interval')?.value ?? null);
  /** The shortest interval that fits the beat, where it lies on the scale. */
  readonly least = $derived.by(() => {
    const least = this.#sheet.figure('beat.shortest')?.value ?? null;
    return least !== null && least >= SHORTEST_S && least <= LONGEST_S ? least : null;
  });
  readonly chosen = $derived.by(() =>
    this.points.find((point) => point.key === this.#sheet.plan.clip.subject)
  );

  /** Where an interval stands; beyond the scale it stands at its end. */
  at(seconds: number): number {
    return Math.min(this.right, Math.max(4, this.x(Math.max(0.3, seconds))));
  }

  choose(point: StartingPoint): void {
    void this.#sheet.set('clip.subject', this.chosen?.key === point.key ? '' : point.key);
  }

  readonly grip: Grip = {
    name: 'bars',
    drag: ({ at, merge }) => this.#put(this.x.invert(at.x), merge),
    nudge: ({ way, size, merge }) => {
      if (this.interval === null) return;
      this.#put(this.interval + way * (this.interval >= 60 ? 10 : 1) * sized(size, 1, 5), merge);
    }
  };

  /** The server may be away just now: the bars come when it is back. Returns how to stop asking. */
  readonly load = (): (() => void) => {
    let timer = 0;
    const ask = async () => {
      try {
        this.points = (await api.GET('/api/starting-points')).data ?? [];
        this.trouble = '';
      } catch (error) {
        this.trouble = sentence(error);
        timer = window.setTimeout(ask, AGAIN_MS);
      }
    };
    void ask();
    return () => clearTimeout(timer);
  };

  /** To the step that can be dialled; by itself an interval is dragged on a coarse scale. */
  #put(value: number, merge: string): void {
    const step = Math.max(
      exact(this.#sheet.plan.clip.interval_step_s),
      value >= 60 ? 10 : value >= 10 ? 1 : 0.5
    );
    const kept = Math.max(step, Math.round(value / step) * step);
    void this.#sheet.set('clip.interval', String(kept), merge);
  }
}
