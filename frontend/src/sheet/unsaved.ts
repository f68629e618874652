/**
 * What could not be saved yet, kept in this browser under the shoot and the window it was changed in. It is saved
 * by itself once the server is back, by this window or, when this one is gone, by the next that opens.
 */
import { api, type Change, type Plan } from '../api/client';

export interface Unsaved {
  shoot: number;
  version: number;
  plan: Plan;
  /** What was asked for and not even worked out yet, oldest first. */
  changes: Change[][];
  name: string;
}

const PREFIX = 'bridle.unsaved.';
const LOCK = 'bridle.window.';

function random(): string {
  return Math.random().toString(36).slice(2, 10);
}

/** This window's own name. It outlives a reload; a window copied from another takes a new one. */
let own = sessionStorage.getItem('bridle.window') ?? random();

async function claim(): Promise<void> {
  if (!navigator.locks) return;
  const got = await new Promise<boolean>((done) => {
    void navigator.locks.request(LOCK + own, { ifAvailable: true }, (lock) => {
      done(lock !== null);
      return lock ? new Promise<never>(() => {}) : undefined;
    });
  });
  if (got) return;
  own = random();
  await claim();
}
const claimed = claim().then(() => sessionStorage.setItem('bridle.window', own));

const keyOf = (shoot: number, window = own) => `${PREFIX}${shoot}.${window}`;

export function put(unsaved: Unsaved): void {
  try {
    localStorage.setItem(keyOf(unsaved.shoot), JSON.stringify(unsaved));
  } catch {
    // The browser's own store is full or forbidden: then there is the warning when the window is closed.
  }
}

export function drop(shoot: number): void {
  localStorage.removeItem(keyOf(shoot));
}

async function live(): Promise<Set<string>> {
  const held = (await navigator.locks?.query())?.held ?? [];
  return new Set(held.flatMap((one) => (one.name?.startsWith(LOCK) ? [one.name.slice(LOCK.length)] : [])));
}

function read(key: string): Unsaved | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Unsaved | null;
  } catch {
    return null;
  }
}

/** What windows that are gone have left behind, this one before its reload among them. */
async function leftovers(): Promise<{ key: string; unsaved: Unsaved }[]> {
  await claimed;
  const windows = await live();
  windows.delete(own);
  const keys = Object.keys(localStorage).filter(
    (key) => key.startsWith(PREFIX) && !windows.has(key.split('.').at(-1) ?? '')
  );
  return keys.flatMap((key) => {
    const unsaved = read(key);
    return unsaved ? [{ key, unsaved }] : [];
  });
}

/** Take over what was left of a shoot; from then on it is this window's. */
export async function takeUp(shoot: number): Promise<Unsaved | null> {
  const found = (await leftovers()).filter((one) => one.unsaved.shoot === shoot);
  for (const one of found) localStorage.removeItem(one.key);
  const last = found.at(-1)?.unsaved ?? null;
  if (last) put(last);
  return last;
}

async function save({ key, unsaved }: { key: string; unsaved: Unsaved }): Promise<boolean> {
  let plan = unsaved.plan;
  for (const changes of unsaved.changes) {
    const answer = await api.POST('/api/evaluate', { body: { plan, changes } });
    // What cannot be (any more) was refused at its place, and would be again.
    if (answer.data) plan = answer.data.plan;
  }
  const params = { path: { shoot_id: unsaved.shoot } };
  const answer = await api.PUT('/api/shoots/{shoot_id}', {
    params,
    body: { version: unsaved.version, plan }
  });
  if (answer.data || answer.response.status === 404) localStorage.removeItem(key);
  return answer.response.status !== 409;
}

/** Save what was left behind, but for the shoot that is open. Returns those that have two versions now. */
export async function saveLeftovers(open: number | null): Promise<Unsaved[]> {
  const two: Unsaved[] = [];
  for (const one of await leftovers()) {
    if (one.unsaved.shoot !== open && !(await save(one))) two.push(one.unsaved);
  }
  return two;
}
