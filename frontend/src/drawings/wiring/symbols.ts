/** The symbols of the field as paths, each drawn from one point to another. */
import type { components } from '../../api/schema';

export type Glyph = components['schemas']['Glyph'];
export interface Stroke {
  d: string;
  /** Filled with ink, not just outlined. */
  full?: boolean;
}

type At = readonly [number, number];
/** A triangle with a bar at its point, half way between two points on one vertical. */
function valve([x, y1]: At, [, y2]: At): Stroke[] {
  const middle = (y1 + y2) / 2;
  const down = Math.sign(y2 - y1) || 1;
  const [top, point] = [middle - 6 * down, middle + 6 * down];
  return [
    { d: `M${x} ${y1}V${top}M${x} ${point}V${y2}` },
    { d: `M${x - 7} ${top}H${x + 7}L${x} ${point}Z` },
    { d: `M${x - 7} ${point}H${x + 7}` }
  ];
}

function button([x, y1]: At, [, y2]: At): Stroke[] {
  const middle = (y1 + y2) / 2;
  const down = Math.sign(y2 - y1) || 1;
  const [near, far] = [middle - 7 * down, middle + 7 * down];
  return [
    { d: `M${x} ${y1}V${near}M${x} ${far}V${y2}M${x} ${far}L${x - 8} ${near}` },
    { d: `M${x - 5} ${middle}H${x - 14}M${x - 14} ${middle - 4}V${middle + 4}` }
  ];
}

function transistor([x, y1]: At, [, y2]: At): Stroke[] {
  const middle = (y1 + y2) / 2;
  const down = Math.sign(y2 - y1) || 1;
  const bar = x - 8;
  const tip = [x, middle + 11 * down] as const;
  return [
    { d: `M${bar} ${middle - 9}V${middle + 9}` },
    {
      d: `M${x} ${y1}V${middle - 11 * down}L${bar} ${middle - 4 * down}M${bar} ${middle + 4 * down}L${tip[0]} ${tip[1]}V${y2}`
    },
    { d: `M${tip[0]} ${tip[1]}l-6 ${-1 * down}l3 ${-4.5 * down}Z`, full: true }
  ];
}

function resistor([x1, y1]: At, [x2, y2]: At): Stroke[] {
  const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
  if (y1 === y2) {
    const half = Math.min(13, Math.abs(x2 - x1) / 2 - 2);
    return [
      { d: `M${x1} ${y1}H${mx - half}M${mx + half} ${y1}H${x2}` },
      { d: `M${mx - half} ${y1 - 5}h${2 * half}v10h${-2 * half}Z` }
    ];
  }
  const half = Math.min(9, Math.abs(y2 - y1) / 2 - 2);
  return [
    { d: `M${x1} ${Math.min(y1, y2)}V${my - half}M${x1} ${my + half}V${Math.max(y1, y2)}` },
    { d: `M${x1 - 5} ${my - half}h10v${2 * half}h-10Z` }
  ];
}

function light([x1, y]: At, [x2]: At): Stroke[] {
  const middle = (x1 + x2) / 2;
  const arrow = (dy: number) => `M${middle - 9} ${y + dy}h16m-5 -3l5 3l-5 3`;
  return [{ d: arrow(-4) + arrow(5) }];
}

const contact = ([x, y]: At): Stroke[] => [
  { d: `M${x - 2.4} ${y}a2.4 2.4 0 1 0 4.8 0a2.4 2.4 0 1 0 -4.8 0` }
];

const DRAWN: Record<Glyph['name'], (a: At, b: At) => Stroke[]> = {
  button,
  transistor,
  resistor,
  light,
  led: valve,
  diode: valve,
  open: contact,
  closed: contact,
  arm: (a, b) => [{ d: `M${a[0]} ${a[1]}L${b[0]} ${b[1]}` }, ...contact(a)],
  coil: ([x, y1], [, y2]) => {
    const middle = (y1 + y2) / 2;
    return [
      { d: `M${x} ${Math.min(y1, y2)}V${middle - 9}M${x} ${middle + 9}V${Math.max(y1, y2)}` },
      { d: `M${x - 10} ${middle - 9}h20v18h-20ZM${x - 10} ${middle + 9}L${x + 10} ${middle - 9}` }
    ];
  },
  // What a pin puts out: a step up and down again.
  pin: ([x, y]) => [{ d: `M${x} ${y}h-3` }, { d: `M${x - 23} ${y + 4}h5v-9h8v9h5` }],
  ground: ([x, y]) => [{ d: `M${x} ${y}h-4M${x - 4} ${y - 8}v16M${x - 8} ${y - 5}v10M${x - 12} ${y - 2}v4` }],
  // Where a voltage stands all the time: a plus.
  supply: ([x, y]) => [{ d: `M${x} ${y}h-5M${x - 20} ${y}h12M${x - 14} ${y - 6}v12` }],
  // Its tip points up; a ring parts each two of its contacts.
  plug: ([x, y1], [, y2]) => [
    { d: `M${x} ${y1 - 8}l6 -6h2l6 6V${y2 + 12}h-14Z` },
    { d: `M${x - 5} ${y2 + 12}h24v6h-24Z`, full: true }
  ],
  lamp: ([x1, y], [x2]) => {
    const [middle, r] = [(x1 + x2) / 2, (x2 - x1) / 2];
    const d = r * 0.7;
    return [
      { d: `M${x1} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0` },
      { d: `M${middle - d} ${y - d}l${2 * d} ${2 * d}M${middle - d} ${y + d}l${2 * d} ${-2 * d}` }
    ];
  },
  // The long plate is the positive one, and lies towards the second point.
  battery: ([x, y1], [, y2]) => {
    const middle = (y1 + y2) / 2;
    const down = Math.sign(y2 - y1) || 1;
    return [
      { d: `M${x} ${y1}V${middle - 3 * down}M${x} ${middle + 3 * down}V${y2}` },
      { d: `M${x - 5} ${middle - 3 * down}h10M${x - 10} ${middle + 3 * down}h20` }
    ];
  },
  fuse: ([x1, y], [x2]) => [{ d: `M${x1} ${y - 5}H${x2}v10H${x1}Z` }, { d: `M${x1} ${y}H${x2}` }],
  ring: ([x, y]) => [{ d: `M${x} ${y - 1.5}h14M${x} ${y + 1.5}h14` }]
};

/** How a symbol is drawn. */
export function strokes(glyph: Glyph): Stroke[] {
  const at = (point: readonly number[]): At => [point[0] ?? 0, point[1] ?? 0];
  return DRAWN[glyph.name](at(glyph.a), at(glyph.b));
}

/** A line through points. */
export const path = (points: readonly (readonly number[])[]) =>
  `M${points.map((point) => point.join(' ')).join('L')}`;
