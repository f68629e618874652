/**
 * Lists that were changed as somebody saw them, while an earlier change was still under way: what was taken out, put
 * in or replaced is done to the list as it has become, so that no change undoes the one before it.
 */
import type { Change, Plan } from '../api/client';
import { valueAt } from '../parts/paths';

const text = (value: unknown) => JSON.stringify(value);

export function rebased<T>(seen: readonly T[], wanted: readonly T[], now: readonly T[]): T[] {
  const before = new Set(seen.map(text));
  const after = new Set(wanted.map(text));
  const gone = new Set([...before].filter((one) => !after.has(one)));
  const made = now.filter((one) => !gone.has(text(one)));
  wanted.forEach((one, i) => {
    if (before.has(text(one))) return;
    // Behind what it was put behind, wherever that stands by now; else at the end.
    const neighbour = i === 0 ? -1 : made.findIndex((other) => text(other) === text(wanted[i - 1]));
    if (i === 0) made.unshift(one);
    else if (neighbour < 0) made.push(one);
    else made.splice(neighbour + 1, 0, one);
  });
  return made;
}

/** The change as it is to be made to the plan as it is now, asked for when it was as it was seen. */
export function caughtUp(change: Change, seen: Plan, now: Plan): Change {
  if (seen === now) return change;
  if (change.do === 'fit') {
    const copies = rebased(seen.kit?.copies ?? [], change.copies, now.kit?.copies ?? []);
    return { ...change, copies };
  }
  if (change.do !== 'edits') return change;
  const edits = change.edits.map((edit) => {
    const [was, is] = [valueAt(seen, edit.path), valueAt(now, edit.path)];
    const lists = [was, is, edit.value].every(Array.isArray) && text(was) !== text(is);
    return lists ? { ...edit, value: rebased(was as [], edit.value as [], is as []) } : edit;
  });
  return { ...change, edits };
}
