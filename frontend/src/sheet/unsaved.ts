/**
 * What could not be saved yet, kept in this browser under the shoot and the window it was changed in. It is saved
 * by itself once the server is back, by this window or, when this one is gone, by the next that opens. A shoot is
 * known by its own identity and by that of its data: a number may be another shoot's by then. Whatever cannot be put
 * back by itself is shown, and nothing is thrown away but by its person.
 */
import { api, got, importPlan, sentence, type Change, type Opened, type Plan } from '../api/client';
import { browser } from './store';
import { keysLeft, ownName } from './windows';

export interface Unsaved {
  shoot: number;
  /** Of the shoot, and of the data it lay in; nothing where an older page kept it. */
  identity?: string;
  data?: string;
  version: number;
  plan: Plan;
  /** What was asked for and not even worked out yet, oldest first. */
  changes: Change[][];
  name: string;
  /** When it was kept, in milliseconds. */
  at?: number;
  /** Another window of the same shoot had other changes, and those are the ones that were put back. */
  second?: boolean;
}

/** Why something is shown instead of being put back. */
export type Why = 'elsewhere' | 'gone' | 'refused' | 'two' | 'second';
export interface Left {
  key: string;
  unsaved: Unsaved;
  why: Why;
  /** What the server said to it, where it said something. */
  said: string;
  /** The number that the shoot has here. */
  shoot: number | null;
}

const PREFIX = 'bridle.unsaved.';
const keyOf = (identity: string) => `${PREFIX}${identity}.${ownName()}`;

/** Whether it is kept now; if not, there is only this window, and the warning when it is closed. */
export function put(unsaved: Unsaved): boolean {
  const kept = JSON.stringify({ ...unsaved, at: Date.now() });
  return browser.set(keyOf(unsaved.identity ?? ''), kept);
}

export function drop(identity: string): void {
  browser.remove(keyOf(identity));
}

interface Found {
  key: string;
  unsaved: Unsaved;
}

/** What windows that are gone have left behind, this one before its reload among them; the oldest first. */
async function leftovers(): Promise<Found[]> {
  return (await keysLeft(PREFIX))
    .flatMap((key) => {
      const unsaved = browser.json<Unsaved>(key);
      return unsaved?.plan ? [{ key, unsaved }] : [];
    })
    .sort((a, b) => (a.unsaved.at ?? 0) - (b.unsaved.at ?? 0));
}

/** The plan as one of today's; the server knows every older form. Throws what it says to one that it cannot read. */
async function upgraded(plan: Plan): Promise<Plan> {
  return got(await api.POST('/api/plans/upgrade', { body: plan as never })).plan;
}

const same = (a: Unsaved, b: Unsaved) =>
  JSON.stringify([a.plan, a.changes]) === JSON.stringify([b.plan, b.changes]);

/**
 * Take over what was left of a shoot; from then on it is this window's. Where two windows left different things, the
 * newer one is taken, and the other stays to be shown.
 */
export async function takeUp(opened: Pick<Opened, 'id' | 'identity' | 'data'>): Promise<Unsaved | null> {
  const mine = (await leftovers()).filter(
    ({ unsaved }) => unsaved.identity === opened.identity && unsaved.data === opened.data && !unsaved.second
  );
  const last = mine.pop();
  if (!last) return null;
  for (const { key, unsaved } of mine) {
    if (same(unsaved, last.unsaved)) browser.remove(key);
    else browser.set(key, JSON.stringify({ ...unsaved, second: true }));
  }
  const plan = await upgraded(last.unsaved.plan).catch(() => null);
  // It stays where it is, and is shown with what the server says to it.
  if (!plan) return null;
  const taken = { ...last.unsaved, plan, shoot: opened.id };
  if (last.key === keyOf(opened.identity) || put(taken)) {
    if (last.key !== keyOf(opened.identity)) browser.remove(last.key);
  }
  return taken;
}

/** Save one to where it belongs; what keeps it from that, or nothing. Throws where the server is away. */
async function save({ key, unsaved }: Found, data: string): Promise<Left | null> {
  const left = (why: Why, said = '', shoot: number | null = null): Left => ({
    key,
    unsaved,
    why,
    said,
    shoot
  });
  if (!unsaved.identity || unsaved.data !== data) return left('elsewhere');
  const path = { identity: unsaved.identity };
  const found = await api.GET('/api/shoots-by-identity/{identity}', { params: { path } });
  if (found.response.status === 404) return left('gone');
  const shoot = got(found).id;
  if (unsaved.second) return left('second', '', shoot);
  const read = await api.POST('/api/plans/upgrade', { body: unsaved.plan as never });
  if (read.response.status === 422) return left('refused', sentence(read.error), shoot);
  let plan = got(read).plan;
  for (const changes of unsaved.changes) {
    const answer = await api.POST('/api/evaluate', { body: { plan, changes } });
    // What cannot be (any more) was refused at its place, and would be again.
    if (answer.data) plan = answer.data.plan;
  }
  const answer = await api.PUT('/api/shoots/{shoot_id}', {
    params: { path: { shoot_id: shoot } },
    body: { version: unsaved.version, plan, identity: unsaved.identity }
  });
  if (answer.data) browser.remove(key);
  else if (answer.response.status === 409) return left('two', '', shoot);
  else if (answer.response.status === 404) return left('gone');
  else if (answer.response.status === 422) return left('refused', sentence(answer.error), shoot);
  return null;
}

/**
 * Save what was left behind, but for the shoot that is open, or is about to be under this number: its sheet takes that
 * up. Returns what its person has to look at.
 */
export async function saveLeftovers(open: string | null, opening: number | null = null): Promise<Left[]> {
  const shown: Left[] = [];
  let data: string | undefined;
  for (const one of await leftovers()) {
    const itsSheet = open === null ? one.unsaved.shoot === opening : one.unsaved.identity === open;
    if (itsSheet && !one.unsaved.second) continue;
    data ??= got(await api.GET('/api/house')).identity;
    const left = await save(one, data);
    if (left) shown.push(left);
  }
  return shown;
}

/** What was left as the text of a plan file. */
export function asFile({ unsaved }: Left): string {
  return JSON.stringify(unsaved.plan, null, 2);
}

/** Make what was left a shoot of its own. Returns its number; throws what the server says to it. */
export async function asShoot(left: Left): Promise<number> {
  const { plan } = left.unsaved;
  const shoot = { ...plan.shoot, name: `${plan.shoot.name.slice(0, 100)}, not saved before` };
  const { id } = await importPlan(JSON.stringify({ ...plan, shoot }));
  browser.remove(left.key);
  return id;
}

/** Its person does not want it any more. */
export function forget(left: Left): void {
  browser.remove(left.key);
}
