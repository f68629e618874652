/** What the server tells of a plan, made ready for drawing: arrays in full length, drags put into the last whole answer. */
import type { Brief, Evaluation } from '../api/client';

const WORST = ['stop', 'mind', 'note'];

type Drawn = Pick<Evaluation, 'traces' | 'view'>;

/** What stays the same throughout is sent once; here it stands at every frame that is drawn. */
function spread<T>(values: readonly T[], count: number): T[] {
  return values.length === 1 && count > 1 ? new Array<T>(count).fill(values[0] as T) : [...values];
}

function spreadAll(lists: Record<string, number[]>, count: number): Record<string, number[]> {
  return Object.fromEntries(Object.entries(lists).map(([name, values]) => [name, spread(values, count)]));
}

export function unpacked<T extends Drawn>(told: T): T {
  const { traces, view } = told;
  if (!traces) return told;
  const count = traces.frames.length;
  return {
    ...told,
    traces: { ...traces, axes: spreadAll(traces.axes, count) },
    view: view && {
      ...view,
      poses: spreadAll(view.poses, count),
      sun: view.sun && spreadAll(view.sun, count),
      shift_share: spread(view.shift_share, count),
      crops: spread(view.crops, count)
    }
  };
}

/** The last whole answer with what a drag has changed; fixes, and what stands aside, come with the next whole one. */
export function dragged(told: Evaluation, brief: Brief): Evaluation {
  const { aside, figures, ...drawn } = unpacked(brief);
  const seen = drawn.snags.map((snag) => ({ ...snag, fixes: [] })) as unknown as Evaluation['snags'];
  const kept = told.snags.filter((snag) => aside.includes(snag.code));
  const snags = [...seen, ...kept].sort((a, b) => WORST.indexOf(a.severity) - WORST.indexOf(b.severity));
  // Who is seen when stands aside as well.
  const view = drawn.view && { ...drawn.view, sights: told.view?.sights ?? [] };
  return { ...told, ...drawn, view, figures: { ...told.figures, ...figures }, snags };
}
