/** The fall of the light over the clock, what the camera is set to under it, and what can be taken hold of. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { clock, shortDay, shutter, write } from '../../format';
import { sized, within, type Grip } from '../../parts/grasp';
import { exact } from '../../parts/paths';
import { at as valueAt, between, elapsedAt, frameAt } from '../../sheet/series';
import type { Sheet } from '../../sheet/sheet.svelte';
import { clockTicks } from '../../time';
import { band, reachOf, ruled, setAt, steps, treads, type ChangeLine } from './geometry';

export const LEFT = 46;
export const RIGHT = 78;
export const TOP = 20;
export const RAIL = 27;
const AXIS = 26;
const PX_A_TICK = 74;
const LEAST_WIDTH = 300;
/** So few pixels a tread may have until its label stands on the rail. */
const PX_A_LABEL = 38;

export const DIALS = ['shutter', 'iso', 'aperture'] as const;
export type Dial = (typeof DIALS)[number];
export const NAMES: Record<Dial, string> = { shutter: 'shutter', iso: 'ISO', aperture: 'aperture' };
/** The limits of the dials, the end that gives less light first. */
const ENDS = {
  shutter: ['light.shutter_short_s', 'light.shutter_long_s'],
  iso: ['light.iso_low', 'light.iso_high'],
  aperture: ['light.aperture_narrow', 'light.aperture_wide']
} as const;

export interface RailMark {
  x: number;
  /** What is set from here on; blank where there is no room for it. */
  label: string;
  first: boolean;
}

export class LightView {
  width = $state(600);
  height = $state(300);
  readonly sheet: Sheet;

  constructor(sheet: Sheet) {
    this.sheet = sheet;
  }

  readonly light = $derived.by(() => this.sheet.evaluation.light);
  readonly plan = $derived.by(() => this.sheet.plan.light!);
  readonly fall = $derived(this.light.fall ?? null);
  readonly here = $derived(this.light.schools?.find((school) => school.here));
  readonly map = $derived.by(() => this.sheet.evaluation.traces?.map);
  readonly frames = $derived.by(() => this.sheet.evaluation.frames ?? 1);
  readonly end = $derived(this.map?.elapsed_s.at(-1) ?? 0);
  readonly followed = $derived(this.plan.school !== 'locked');
  readonly plot = $derived({
    left: LEFT,
    right: Math.max(LEFT + 120, this.width - RIGHT),
    top: TOP,
    bottom: this.base
  });
  get base(): number {
    return this.height - AXIS - RAIL * DIALS.length;
  }

  readonly x = $derived(
    scaleLinear(
      [this.fall?.at_s[0] ?? 0, this.fall?.at_s.at(-1) ?? Math.max(this.end, 1)],
      [this.plot.left, this.plot.right]
    )
  );
  readonly flight = $derived.by(() =>
    this.here ? treads(this.here.flight, this.sheet.evaluation.traces, this.end) : []
  );
  readonly range = $derived.by(() => {
    const set = this.fall?.by_frame ? [] : this.flight.map(({ ev }) => ev);
    return reachOf([...(this.fall?.wanted ?? []), ...(this.fall?.ev ?? []), ...set]);
  });
  readonly y = $derived(scaleLinear(this.range, [this.plot.bottom, this.plot.top]));
  readonly rules = $derived(ruled(this.range));

  readonly curve = $derived(this.#line(this.fall?.wanted));
  /** The scene as it is, where a night is to look darker than that. */
  readonly real = $derived(this.plan.night_stops ? this.#line(this.fall?.ev) : '');
  readonly set = $derived(steps(this.flight, this.x, this.y));
  /** What the other schools would set: fine lines to compare with, each named at its end. */
  readonly others = $derived.by(() =>
    (this.light.schools ?? [])
      .filter(({ here, school }) => !here && school !== 'automatic')
      .map(({ school, flight }) => {
        const all = treads(flight, this.sheet.evaluation.traces, this.end);
        const last = all.at(-1);
        return { school, d: steps(all, this.x, this.y), x: this.x(this.end), y: this.y(last?.ev ?? 0) };
      })
  );
  readonly mendable = $derived(
    band(this.flight, this.x, this.y, this.plan.over_stops ?? 0, this.plan.under_stops ?? 0)
  );
  /** The light of single frames, where a shoot goes on for weeks. */
  readonly dots = $derived(
    (this.fall?.by_frame ? this.fall.wanted : []).map(
      (ev, n) => [this.x(this.fall?.at_s[n] ?? 0), this.y(ev)] as const
    )
  );
  /** The flight as a staircase that stands on the ground: the tread as long as a setting holds. */
  readonly stairs = $derived(
    this.set ? `${this.set}V${this.plot.bottom}H${this.x(this.flight[0]?.from ?? 0).toFixed(1)}Z` : ''
  );
  readonly bands = $derived(
    (this.light.bands ?? []).map(({ dark, from_s, to_s }) => ({
      dark,
      from: within(this.x(from_s), this.plot.left, this.plot.right),
      to: within(this.x(to_s), this.plot.left, this.plot.right)
    }))
  );
  readonly ticks = $derived.by(() => {
    const { start, zone } = this.sheet;
    const [from = 0, to = 1] = this.x.domain();
    const most = Math.max(3, (this.plot.right - this.plot.left) / PX_A_TICK);
    const { at, step } = clockTicks(start + from, start + to, most, zone);
    return at.map((tick) => ({
      x: this.x(tick - start),
      text: step >= 86_400 ? shortDay(tick, zone) : clock(tick, zone, step < 60)
    }));
  });
  /** The shoot itself within the drawing. */
  readonly span = $derived({ from: this.x(0), to: this.x(this.end) });
  readonly headX = $derived.by(() => this.x(elapsedAt(this.map, this.sheet.playhead.at)));
  readonly head = $derived.by(() => {
    const frame = this.sheet.playhead.at;
    const seconds = elapsedAt(this.map, frame);
    const wanted = this.fall ? between(this.fall.at_s, this.fall.wanted, seconds) : 0;
    const set = this.flight.find(({ from, to }) => seconds >= from - 1e-6 && seconds < to)?.ev;
    return { frame, seconds, wanted, set, now: setAt(this.light.changes, frame) };
  });
  readonly text = $derived.by(() => {
    const { frame, seconds, now } = this.head;
    const said = now ? `${shutter(now.shutter_s)}, ISO ${now.iso}, f/${now.aperture}` : '';
    return `frame ${frame + 1}, ${clock(this.sheet.start + seconds, this.sheet.zone)}${said ? `, ${said}` : ''}`;
  });

  /** What a rail shows: a mark at each change, with what is set from there on. */
  marks(dial: Dial): RailMark[] {
    const changes = this.light.changes ?? [];
    if (!this.followed || !changes.length || this.fall?.by_frame)
      return [{ x: this.span.from, label: this.#held(dial), first: true }];
    const own = changes.filter(({ moved }, n) => n === 0 || moved.includes(dial));
    let free = -Infinity;
    return own.map((change, n) => {
      const x = this.x(elapsedAt(this.map, change.frame));
      const next = own[n + 1];
      const room = (next ? this.x(elapsedAt(this.map, next.frame)) : this.span.to) - x;
      const shown = x >= free && room > 0 && (n === 0 || x - free >= 0);
      const label = shown && (room >= PX_A_LABEL || x >= free) ? said(dial, change) : '';
      if (label) free = x + Math.max(PX_A_LABEL, label.length * 6.2 + 10);
      return { x, label, first: n === 0 };
    });
  }

  #held(dial: Dial): string {
    if (this.followed && this.plan.order?.includes(dial)) return 'as the light has it';
    const { beat, camera } = this.sheet.plan;
    if (dial === 'shutter') return shutter(exact(beat?.exposure_s));
    return dial === 'iso' ? String(camera?.iso) : `f/${camera?.aperture}`;
  }

  #line(values: readonly number[] | undefined): string {
    if (!values || !this.fall) return '';
    const at = this.fall.at_s;
    return (
      line<number>()
        .x((_, n) => this.x(at[n] ?? 0))
        .y((ev) => this.y(ev))
        .digits(1)(values) ?? ''
    );
  }

  readonly playhead: Grip = {
    name: 'playhead on the light',
    scrolls: true,
    take: ({ x }) => this.#to(x),
    drag: ({ at }) => this.#to(at.x),
    atOnce: true,
    nudge: ({ way, size }) => {
      const coarse = Math.max(1, Math.round(this.frames / 20));
      this.sheet.playhead.by(way * sized(size, 1, coarse));
    }
  };

  #to(px: number): void {
    this.sheet.playhead.stop();
    if (this.map) this.sheet.playhead.to(frameAt(this.map, this.x.invert(px)));
  }

  /** A test exposure: sideways its time, up and down its shutter time. */
  proof(number: number): Grip {
    let began = { at: '', shutter_s: '' as string | number };
    const put = (minutes: number, stops: number, merge: string) => {
      const path = `light.proofs.${number}`;
      const [later, thirds] = [Math.round(minutes), Math.round(stops * 3) / 3];
      // What is not moved stays as it was typed.
      const at = later ? new Date(Date.parse(began.at) + later * 60_000).toISOString() : began.at;
      void this.sheet.change(
        [
          { do: 'set', path: `${path}.at`, value: at },
          thirds
            ? {
                do: 'dial',
                path: `${path}.shutter_s`,
                dial: 'shutter',
                value: exact(began.shutter_s) * 2 ** -thirds
              }
            : { do: 'set', path: `${path}.shutter_s`, value: began.shutter_s }
        ],
        merge
      );
    };
    const begin = () => {
      const proof = this.plan.proofs?.[number];
      if (proof) began = { at: proof.at, shutter_s: proof.shutter_s };
    };
    return {
      name: `test exposure ${number + 1}`,
      slack: 3,
      take: () => begin(),
      drag: ({ by, merge }) => {
        const seconds = this.x.invert(by.x) - this.x.invert(0);
        put(seconds / 60, this.y.invert(by.y) - this.y.invert(0), merge);
      },
      nudge: ({ right, up, size, merge }) => {
        begin();
        put(right * sized(size, 1, 10), (up * sized(size, 1, 3)) / 3, merge);
      }
    };
  }

  /** Where the limits of the settings that follow lie on the scale of the light, one under another in their order. */
  readonly reach = $derived.by(() => (this.followed ? (this.light.reach ?? []) : []));

  /** An end of a dial's limits, drawn as far as the scale of the light goes. */
  limit(dial: Dial, end: 0 | 1): Grip {
    const path = ENDS[dial][end];
    let from = 1;
    const value = () => exact((this.plan as unknown as Record<string, unknown>)[path.slice(6)]);
    const put = (stops: number, merge: string) => {
      // More light let in is a longer shutter and a higher ISO, and a smaller number of the aperture.
      const factor = dial === 'aperture' ? 2 ** (-stops / 2) : 2 ** stops;
      void this.sheet.change([{ do: 'dial', path, dial, value: from * factor }], merge);
    };
    return {
      name: `${NAMES[dial]} limit ${end}`,
      take: () => {
        from = value();
      },
      drag: ({ by, merge }) => put(this.y.invert(0) - this.y.invert(by.y), merge),
      nudge: ({ way, size, merge }) => {
        from = value();
        put((-way * sized(size, 1, 3)) / 3, merge);
      }
    };
  }

  said(dial: Dial, end: 0 | 1): string {
    const value = exact((this.plan as unknown as Record<string, unknown>)[ENDS[dial][end].slice(6)]);
    if (dial === 'shutter') return shutter(value);
    return dial === 'iso' ? `ISO ${value}` : `f/${value}`;
  }

  /** The cloud: the whole curve pulled down, or let up again. */
  readonly cloud: Grip = (() => {
    let from = 0;
    const put = (stops: number, merge: string) =>
      void this.sheet.set('light.cloud_stops', within(Math.round(stops * 10) / 10, 0, 4), merge);
    return {
      name: 'cloud',
      take: () => {
        from = this.plan.cloud_stops ?? 0;
      },
      drag: ({ by, merge }) => put(from + this.y.invert(0) - this.y.invert(by.y), merge),
      nudge: ({ way, size, merge }) =>
        put((this.plan.cloud_stops ?? 0) - way * sized(size, 0.1, 1, 0.1), merge)
    } satisfies Grip;
  })();

  resize(width: number): void {
    this.width = Math.max(LEAST_WIDTH, width);
  }

  /** Stops to be added in the edit at the playhead. */
  readonly left = $derived.by(() => valueAt(this.light.leftover ?? undefined, this.sheet.playhead.at));
  readonly bright = $derived.by(() => valueAt(this.light.bright ?? undefined, this.sheet.playhead.at));
}

function said(dial: Dial, change: ChangeLine): string {
  if (dial === 'shutter') return shutter(change.shutter_s).replace(' s', '').replace(' s', '');
  return dial === 'iso' ? String(change.iso) : `f/${change.aperture}`;
}

export const stopsSaid = (stops: number): string =>
  Math.abs(stops) < 0.005 ? '0' : `${stops > 0 ? '+' : ''}${write(Number(stops.toFixed(2)), '')}`;
