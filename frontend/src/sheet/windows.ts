/** Which windows of this page are open: what one that is gone has left belongs to the next that opens. */
import { browser, ownWindow } from './store';

const LOCK = 'bridle.window.';

function random(): string {
  return Math.random().toString(36).slice(2, 10);
}

/** This window's own name. It outlives a reload; a window copied from another takes a new one. */
let own = ownWindow.get('bridle.window') ?? random();

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
const claimed = claim().then(() => ownWindow.set('bridle.window', own));

export function ownName(): string {
  return own;
}

async function live(): Promise<Set<string>> {
  const held = (await navigator.locks?.query())?.held ?? [];
  return new Set(held.flatMap((one) => (one.name?.startsWith(LOCK) ? [one.name.slice(LOCK.length)] : [])));
}

/** The keys that end in the name of a window that is gone, or of this one before its reload. */
export async function keysLeft(prefix: string): Promise<string[]> {
  await claimed;
  const windows = await live();
  windows.delete(own);
  return browser.keys().filter((key) => key.startsWith(prefix) && !windows.has(key.split('.').at(-1) ?? ''));
}
