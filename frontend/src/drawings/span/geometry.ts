/** Geometry of the span: what part of the shoot is in view, and how it is zoomed and moved. */
export interface View {
  from: number;
  to: number;
}

export const WHOLE: View = { from: 0, to: 1 };
const CLOSEST = 0.01;

/** Zoom by a factor around a share of the shoot; the view stays within it. */
export function zoom(view: View, factor: number, around: number): View {
  const length = Math.min(1, Math.max(CLOSEST, (view.to - view.from) * factor));
  const share = (around - view.from) / (view.to - view.from);
  return within({ from: around - share * length, to: around + (1 - share) * length });
}

export function shift(view: View, by: number): View {
  return within({ from: view.from + by, to: view.to + by });
}

function within(view: View): View {
  const over = Math.max(0, view.to - 1) + Math.min(0, view.from);
  return { from: Math.max(0, view.from - over), to: Math.min(1, view.to - over) };
}

/** Where on the drawing values lie between the lowest and the highest of their axis; a still axis lies low. */
export function heights(values: readonly number[], top: number, bottom: number): number[] {
  const low = Math.min(...values);
  const high = Math.max(...values);
  const across = high - low || 1;
  return values.map((value) => bottom - ((value - low) / across) * (bottom - top));
}

/** A line through points, as an SVG path. */
export function path(xs: readonly number[], ys: readonly number[]): string {
  return xs.map((x, i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${(ys[i] ?? 0).toFixed(1)}`).join('');
}

const STEPS_S = [
  1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 10800, 21600, 43200, 86400, 172800, 604800
];

/** Round clock times between two instants (epoch seconds), at most so many, on the zone's own clock. */
export function clockTicks(
  from: number,
  to: number,
  most: number,
  offsetS: number
): { step: number; at: number[] } {
  const step =
    STEPS_S.find((size) => (to - from) / size <= most) ?? 604_800 * Math.ceil((to - from) / 604_800 / most);
  const first = Math.ceil((from + offsetS) / step) * step - offsetS;
  const at: number[] = [];
  for (let tick = first; tick <= to; tick += step) at.push(tick);
  return { step, at };
}

/** The zone's offset from UTC at an instant, in seconds. */
export function offset(epochSeconds: number, zone: string): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric'
  }).formatToParts(new Date(epochSeconds * 1000));
  const read = (type: string) => Number(parts.find((part) => part.type === type)?.value);
  const local = Date.UTC(
    read('year'),
    read('month') - 1,
    read('day'),
    read('hour'),
    read('minute'),
    read('second')
  );
  return local / 1000 - Math.floor(epochSeconds);
}
