/** Bars laid out in rows so that neither they nor their names overlap. */
export interface Laid<T> {
  item: T;
  row: number;
  from: number;
  to: number;
  /** The name stands beside the bar, because it does not fit inside. */
  outside: boolean;
}

const GAP = 8;

export function rowsOf<T extends { name: string }>(
  items: readonly T[],
  ends: (item: T) => [number, number],
  pxALetter: number
): Laid<T>[] {
  const filled: number[] = [];
  return items.map((item) => {
    const [from, to] = ends(item);
    const name = item.name.length * pxALetter + 12;
    const outside = name > to - from;
    const until = outside ? to + name : to;
    let row = filled.findIndex((end) => end + GAP <= from);
    if (row < 0) row = filled.length;
    filled[row] = until;
    return { item, row, from, to, outside };
  });
}
