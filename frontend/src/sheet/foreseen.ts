/** What each fix of an evaluation would bring, asked for once and only when somebody looks at a snag. */
import { api, type Evaluation, type ForeseenLine, type Plan } from '../api/client';

const asked = new WeakMap<Evaluation, Promise<ForeseenLine[]>>();

export function foresee(plan: Plan, evaluation: Evaluation): Promise<ForeseenLine[]> {
  const standing = asked.get(evaluation);
  if (standing) return standing;
  // Without an answer nothing is foretold; the fix works all the same, and the next evaluation tells.
  const answer = api
    .POST('/api/foresee', { body: { plan } })
    .then(({ data }) => data ?? [])
    .catch(() => []);
  asked.set(evaluation, answer);
  return answer;
}
