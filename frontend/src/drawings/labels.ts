/** Room for the labels of a drawing: each as near to its thing as it can stand without lying on another. */

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** What is to be labelled: its place, how far from it the text begins, and its lines, the first one bold. */
export interface Wanted {
  x: number;
  y: number;
  reach: number;
  lines: readonly string[];
}

/** Where a label stands: the end of its text, the base of its first line, and a line back where it had to move away. */
export interface Placed {
  x: number;
  y: number;
  anchor: 'start' | 'end';
  lead: [number, number, number, number] | null;
}

export const LINE = 14;
const PX_A_LETTER = 6.4;
/** How far letters reach over their base line, and under it. */
const OVER = 10;
const UNDER = 3;
const GAP = 3;
/** From here on nobody sees without a line to which thing a label belongs. */
const AWAY = 26;
const RINGS = [0, 14, 28, 42, 58, 76, 96, 120, 150, 180];

export const wideOf = (text: string): number => text.length * PX_A_LETTER;

export function boxOf({ x, y, anchor }: Pick<Placed, 'x' | 'y' | 'anchor'>, lines: readonly string[]): Box {
  const wide = Math.max(...lines.map(wideOf));
  const left = anchor === 'start' ? x : x - wide;
  return { left, right: left + wide, top: y - OVER, bottom: y + UNDER + LINE * (lines.length - 1) };
}

const common = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left) + GAP) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));

/** By how much a box lies outside of a room, as an area. */
function beyond(box: Box, room: Box): number {
  const out =
    Math.max(0, room.left - box.left) +
    Math.max(0, box.right - room.right) +
    Math.max(0, room.top - box.top) +
    Math.max(0, box.bottom - room.bottom);
  return out * 100;
}

/** Where the text of a thing may stand, the best first: beside it, then further and further over and under it. */
function* places(thing: Wanted): Generator<Placed> {
  const middle = thing.y + OVER / 2 - 1 - (LINE * (thing.lines.length - 1)) / 2;
  for (const ring of RINGS) {
    for (const down of ring ? [-ring, ring] : [0]) {
      for (const anchor of ['start', 'end'] as const) {
        const beside = Math.abs(down) > 44 ? Math.min(thing.reach, 8) : thing.reach;
        const x = thing.x + (anchor === 'start' ? beside : -beside);
        const y = middle + down;
        const lead =
          Math.abs(down) < AWAY
            ? null
            : ([thing.x, thing.y, x, down < 0 ? y + UNDER + LINE * (thing.lines.length - 1) : y - OVER] as [
                number,
                number,
                number,
                number
              ]);
        yield { x, y, anchor, lead };
      }
    }
  }
}

/**
 * A place for each label within a room, in the order in which they come: the first at which it lies on nothing that
 * is `taken` and on no label before it; where there is none, the one at which it lies on the least.
 */
export function placed(things: readonly Wanted[], taken: readonly Box[], room: Box): Placed[] {
  const full = [...taken];
  return things.map((thing) => {
    let best: Placed | undefined;
    let least = Infinity;
    for (const place of places(thing)) {
      const box = boxOf(place, thing.lines);
      const cost = beyond(box, room) + full.reduce((sum, other) => sum + common(box, other), 0);
      if (cost < least) [best, least] = [place, cost];
      if (!cost) break;
    }
    const found = best!;
    full.push(boxOf(found, thing.lines));
    return found;
  });
}

/** The box around a round thing. */
export const around = (x: number, y: number, reach: number): Box => ({
  left: x - reach,
  right: x + reach,
  top: y - reach,
  bottom: y + reach
});
