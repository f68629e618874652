/** What the server tells of a plan while something is dragged, put into its last whole answer. */
import type { Brief, Evaluation } from '../api/client';

const WORST = ['stop', 'mind', 'note'];

/** The last whole answer with what a drag has changed; fixes, and what stands aside, come with the next whole one. */
export function dragged(evaluation: Evaluation, brief: Brief): Evaluation {
  const { aside, figures, season, ...drawn } = brief;
  const seen = drawn.snags.map((snag) => ({ ...snag, fixes: [] })) as unknown as Evaluation['snags'];
  const kept = evaluation.snags.filter(
    (snag) => aside.includes(snag.code) || aside.includes(`${snag.chapter}/`)
  );
  const snags = [...seen, ...kept].sort((a, b) => WORST.indexOf(a.severity) - WORST.indexOf(b.severity));
  // Who is seen when stands aside as well.
  const view = drawn.view && {
    ...drawn.view,
    sights: evaluation.view?.sights ?? [],
    bodies: evaluation.view?.bodies ?? []
  };
  // Of the light only what the finder shows follows a drag, but where it is the light that is dragged.
  const { bright, shutter_s, missing, schools } = drawn.light;
  const light = schools?.length ? drawn.light : { ...evaluation.light, missing, bright, shutter_s };
  return {
    ...evaluation,
    ...drawn,
    view,
    light,
    season: calendar(evaluation.season, season),
    figures: { ...evaluation.figures, ...figures },
    snags
  };
}

/** What windows come to follows a drag of them; what the camera lives on comes with the next whole answer. */
function calendar(kept: Evaluation['season'], season: Brief['season']): Evaluation['season'] {
  if (!season) return kept;
  const { rules, first, per_day, inked, sun, off } = season;
  return { ...kept, rules, first, per_day, inked, sun, off } as Evaluation['season'];
}
