/** Where the interval changes, and what a hand on it does: what one segment gains the next loses. */
import { exact } from '../../../parts/paths';
import { sized, type Grip } from '../../../parts/grasp';
import { changing } from '../../../sheet/frames';
import type { Sheet } from '../../../sheet/sheet.svelte';
import { shared } from '../geometry';
import type { SpanView } from '../state.svelte';

export interface Change {
  /** The segment before it. */
  segment: number;
  frame: number;
}

/** By the frames that the segments came to. */
export function changesOf(sheet: Sheet): Change[] {
  let frame = 0;
  return changing(sheet.plan)
    .segments.slice(0, -1)
    .map((_, segment) => {
      frame += sheet.figure(`clip.segment.${segment}.frames`)?.value ?? 0;
      return { segment, frame };
    });
}

export function changeGrip(span: SpanView, segment: number): Grip {
  const { sheet } = span;
  const both = (field: 'length_s' | 'interval_s') => {
    const { segments } = changing(sheet.plan);
    return [exact(segments[segment]?.[field]), exact(segments[segment + 1]?.[field])] as [number, number];
  };
  let taken: [number, number] = [0, 0];
  function move(from: [number, number], by: number, merge: string) {
    const edits = shared(from, both('interval_s'), by).map((seconds, n) => ({
      path: `frames.segments.${segment + n}.length_s`,
      value: String(seconds)
    }));
    void sheet.change([{ do: 'edits', edits }], merge);
  }
  return {
    name: `change of the interval ${segment}`,
    take: () => {
      taken = both('length_s');
    },
    drag: ({ by, merge }) => move(taken, span.seconds(by.x), merge),
    nudge: ({ way, size, merge }) =>
      move(both('length_s'), way * both('interval_s')[0] * sized(size, 1, 10), merge)
  };
}
