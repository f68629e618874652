/** Bars laid out in rows so that neither they nor their names overlap. */
export interface Laid<T> {
  item: T;
  row: number;
  from: number;
  to: number;
  /** The name stands beside the bar, because it does not fit inside. */
  outside: boolean;
  /** It stands before it, because it would run off the drawing behind. */
  before: boolean;
}

const GAP = 8;

export function rowsOf<T extends { name: string }>(
  items: readonly T[],
  ends: (item: T) => [number, number],
  pxALetter: number,
  right = Infinity
): Laid<T>[] {
  const filled: number[] = [];
  return items.map((item) => {
    const [from, to] = ends(item);
    const name = item.name.length * pxALetter + 12;
    const outside = name > to - from;
    // A name that would run off the drawing stands before its bar.
    const before = outside && to + name > right;
    const until = outside && !before ? to + name : to;
    const since = before ? from - name : from;
    let row = filled.findIndex((end) => end + GAP <= since);
    if (row < 0) row = filled.length;
    filled[row] = until;
    return { item, row, from, to, outside, before };
  });
}
