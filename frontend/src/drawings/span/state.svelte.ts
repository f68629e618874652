/** The span of the open sheet: its time on the drawing, zoomed and moved, and where the playhead is. */
import { range } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { select, type Selection } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
import { clock, number, shortDay, shutter, write } from '../../format';
import type { Grip } from '../../parts/grasp';
import { at as valueAt, elapsedAt, frameAt } from '../../sheet/series';
import type { Sheet } from '../../sheet/sheet.svelte';
import { clockTicks } from '../../time';
import { UNITS } from '../axes';
import { setAt } from '../light/geometry';
import { CLOSEST, flagAt, transformTo, viewOf } from './geometry';

export const LEFT = 92;
export const RIGHT = 20;
export const TALL = 150;
export const BASE = 124;
const LEAST_WIDTH = LEFT + RIGHT + 80;
const MOST_TICKS = 4000;
const PX_A_TICK = 78;
const NARROW = 620;
const PX_A_LETTER = 5.75;

export class SpanView {
  width = $state(1160);
  #transform = $state.raw<ZoomTransform>(zoomIdentity);
  readonly sheet: Sheet;
  #selected: Selection<SVGSVGElement, unknown, null, undefined> | undefined;
  readonly #zoom = zoom<SVGSVGElement, unknown>()
    // One finger and the mouse move the playhead; the wheel and two fingers zoom.
    .filter((event: Event) => (event.type === 'wheel' ? !sideways(event as WheelEvent) : fingers(event) > 1))
    .wheelDelta((event) => -event.deltaY / 400 / Math.LN2)
    .scaleExtent([1, CLOSEST])
    .on('zoom', ({ transform }: { transform: ZoomTransform }) => {
      this.#transform = transform;
    });

  constructor(sheet: Sheet) {
    this.sheet = sheet;
  }

  readonly frames = $derived.by(() => this.sheet.evaluation.frames ?? 0);
  readonly traces = $derived.by(() => this.sheet.evaluation.traces);
  readonly map = $derived(this.traces?.map);
  /** The span ends with the last frame; its slot is beyond it. Seconds. */
  readonly length = $derived(elapsedAt(this.map, Math.max(0, this.frames - 1)));
  readonly room = $derived({ left: LEFT, right: this.width - RIGHT });
  readonly scale = $derived(
    this.#transform.rescaleX(scaleLinear([0, Math.max(this.length, 1e-9)], [LEFT, this.width - RIGHT]))
  );
  readonly zoomed = $derived(this.#transform.k > 1);
  readonly at = $derived.by(() => this.sheet.playhead.at);
  readonly headX = $derived(this.xOf(this.at));
  readonly shown = $derived.by(() => {
    if (!this.map) return [];
    const [from = 0, to = 0] = this.scale.domain();
    const first = Math.floor(frameAt(this.map, from));
    const last = Math.min(this.frames - 1, Math.ceil(frameAt(this.map, to)));
    return range(first, Math.min(last + 1, first + MOST_TICKS));
  });
  readonly ticks = $derived.by(() => {
    const { start, zone } = this.sheet;
    const [from = 0, to = 0] = this.scale.domain().map((seconds) => start + seconds);
    const most = Math.max(3, (this.width - LEFT - RIGHT) / PX_A_TICK);
    const { at, step } = clockTicks(from, to, most, zone);
    return at.map((tick) => ({
      x: this.scale(tick - start),
      text: step >= 86_400 ? shortDay(tick, zone) : clock(tick, zone, step < 60)
    }));
  });
  readonly flag = $derived.by(() => {
    const { start, zone, evaluation } = this.sheet;
    const now = start + elapsedAt(this.map, this.at);
    const followed = evaluation.light.shutter_s;
    const tight = evaluation.beat?.parts.find((part) => part.name === 'exposure')?.length_s ?? 0;
    const dialled = setAt(evaluation.light.changes, this.at)?.shutter_s;
    const exposure = dialled ?? (followed ? valueAt(followed, this.at) : tight);
    const positions = Object.entries(this.traces?.axes ?? {}).map(([name, series]) => {
      const value = Number(valueAt(series, this.at).toFixed(name === 'slide' ? 1 : 2));
      return `${name} ${write(value, UNITS[name] ?? '')}`;
    });
    // On a narrow drawing there is room for when it is, and for no more.
    const whole = this.width > NARROW;
    const text = [
      `frame ${number(this.at + 1, 12)}`,
      `${this.length > 86_400 ? `${shortDay(now, zone)}, ` : ''}${clock(now, zone)}`,
      ...(whole ? [...positions, shutter(exposure)] : [])
    ].join(' · ');
    const wide = text.length * PX_A_LETTER + 18;
    return { text, wide, x: flagAt(this.headX, wide, this.room, this.width) };
  });
  readonly playhead: Grip = {
    name: 'playhead',
    scrolls: true,
    take: ({ x }) => this.#to(x),
    drag: ({ at }) => this.#to(at.x),
    atOnce: true,
    nudge: ({ way, size }) =>
      this.sheet.playhead.by(way * (size === 'coarse' ? Math.max(1, Math.round(this.frames / 20)) : 1))
  };

  /** Where a frame is on the drawing, in pixels. */
  xOf(frame: number): number {
    return this.scale(elapsedAt(this.map, frame));
  }

  /** How many seconds so many pixels are. */
  seconds(px: number): number {
    return this.scale.invert(px) - this.scale.invert(0);
  }

  seen(x: number): boolean {
    return x >= LEFT && x <= this.width - RIGHT;
  }

  /** The wheel and two fingers zoom this drawing. */
  readonly zooms = (node: SVGSVGElement) => {
    this.#selected = select(node).call(this.#zoom).on('dblclick.zoom', null);
    node.addEventListener('wheel', this.#wheel, { passive: false });
    return {
      destroy: () => {
        this.#selected?.on('.zoom', null);
        node.removeEventListener('wheel', this.#wheel);
      }
    };
  };

  /** The same part of the shoot stays in view when the drawing gets wider or narrower. */
  resize(width: number): void {
    const view = viewOf(this.#transform, this.room);
    // While the page is still being laid out it may have no width at all.
    this.width = Math.max(LEAST_WIDTH, width);
    const box: [[number, number], [number, number]] = [
      [LEFT, 0],
      [this.width - RIGHT, TALL]
    ];
    this.#zoom.extent(box).translateExtent(box);
    if (this.#selected) this.#zoom.transform(this.#selected, transformTo(view, this.room));
  }

  /** What the keys do that are not arrows. */
  readonly keys = (event: KeyboardEvent) => {
    const head = this.sheet.playhead;
    if (event.key === 'Home') head.by(-this.frames);
    else if (event.key === 'End') head.by(this.frames);
    else if (event.key === '+' || event.key === '=') this.#zoomBy(1 / 0.7);
    else if (event.key === '-') this.#zoomBy(1 / 1.4);
    else return;
    event.preventDefault();
  };

  whole(): void {
    if (this.#selected) this.#zoom.transform(this.#selected, zoomIdentity);
  }

  #zoomBy(factor: number): void {
    if (this.#selected) this.#zoom.scaleBy(this.#selected, factor, [this.headX, 0]);
  }

  /** The wheel turned sideways, or with shift, moves along. */
  readonly #wheel = (event: WheelEvent) => {
    if (!this.#selected || !sideways(event)) return;
    event.preventDefault();
    this.#zoom.translateBy(this.#selected, -(event.deltaX || event.deltaY) / this.#transform.k, 0);
  };

  #to(px: number): void {
    this.sheet.playhead.stop();
    if (this.map) this.sheet.playhead.to(frameAt(this.map, this.scale.invert(px)));
  }
}

const sideways = (event: WheelEvent) => event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY);
const fingers = (event: Event) => ('touches' in event ? (event as TouchEvent).touches.length : 0);
