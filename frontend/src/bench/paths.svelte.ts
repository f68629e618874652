/** The paths of a print, thinned, a layer at a time: for the bed, the growth, the side view. */
import { api, got } from '../api/client';

export interface Paths {
  /** Where each layer's corners begin, and one more for the end. */
  begins: number[];
  /** x, y and whether it is printed up to there, in `unit` mm. */
  points: Int16Array;
  unit: number;
  start: number[][];
  end: number[][];
}

const kept = new Map<number, Promise<Paths>>();

export function pathsOf(print: number): Promise<Paths> {
  const there = kept.get(print);
  if (there) return there;
  const coming = load(print);
  kept.set(print, coming);
  coming.catch(() => kept.delete(print));
  return coming;
}

async function load(print: number): Promise<Paths> {
  const [told, answer] = await Promise.all([
    api.GET('/api/prints/{print_id}/paths', { params: { path: { print_id: print } } }).then(got),
    fetch(`/api/prints/${print}/points`)
  ]);
  if (!answer.ok) throw new Error('the paths of this print cannot be had');
  const begins = [0];
  for (const count of told.counts) begins.push(begins.at(-1)! + count);
  return {
    begins,
    points: new Int16Array(await answer.arrayBuffer()),
    unit: told.unit_mm,
    start: told.start,
    end: told.end
  };
}

/** A layer's printed ways as a path of an SVG, in mm, y upwards turned down. */
export function drawn(paths: Paths, layer: number): string {
  const { points, begins, unit } = paths;
  let text = '';
  for (let n = begins[layer - 1] ?? 0; n < (begins[layer] ?? 0); n += 1) {
    const [x, y, pen] = [points[3 * n]! * unit, points[3 * n + 1]! * unit, points[3 * n + 2]];
    text += `${pen ? 'L' : 'M'}${x.toFixed(1)} ${(-y).toFixed(1)}`;
  }
  return text;
}

/** A way of the head before or after the print; its travels and what it prints apart. */
export function ways(path: number[][]): { travels: string; prints: string } {
  let [travels, prints] = ['', ''];
  path.forEach(([x = 0, y = 0, , pen], n) => {
    const before = path[n - 1];
    if (!before) return;
    const piece = `M${before[0]} ${-before[1]!}L${x} ${-y}`;
    if (pen) prints += piece;
    else travels += piece;
  });
  return { travels, prints };
}
