/** What was taken along of a shoot, and whether its plan has changed since. Kept in this browser. */
import { SvelteMap } from 'svelte/reactivity';
import type { Plan } from '../api/client';
import { browser } from './store';

export const TAKES = { card: 'field card', frames: 'frame table', plan: 'plan' } as const;

interface Took {
  at: number;
  of: string;
}

/** A short sign of a plan: two plans that differ have another one, for all that matters here. */
export function sign(plan: Plan): string {
  let a = 0x811c9dc5;
  let b = 5381;
  for (const letter of JSON.stringify(plan)) {
    const code = letter.codePointAt(0) ?? 0;
    a = Math.imul(a ^ code, 0x01000193) >>> 0;
    b = (Math.imul(b, 33) + code) >>> 0;
  }
  return `${a.toString(36)}-${b.toString(36)}`;
}

export class Taken {
  readonly #took = new SvelteMap<string, Took>();
  readonly #place: string;

  constructor(shoot: number) {
    this.#place = `bridle.taken.${shoot}`;
    try {
      const kept = browser.json<Record<string, Took>>(this.#place) ?? {};
      for (const [what, took] of Object.entries(kept)) this.#took.set(what, took);
    } catch {
      // What cannot be read was never taken, for all that is known.
    }
  }

  mark(what: string, plan: Plan): void {
    this.#took.set(what, { at: Date.now() / 1000, of: sign(plan) });
    browser.set(this.#place, JSON.stringify(Object.fromEntries(this.#took)));
  }

  /** What of all that was taken is out of date, in words with its moment. */
  old(plan: Plan): { what: keyof typeof TAKES; at: number }[] {
    return (Object.keys(TAKES) as (keyof typeof TAKES)[]).flatMap((what) => {
      const at = this.outdated(what, plan);
      return at === null ? [] : [{ what, at }];
    });
  }

  /** When it was taken, where the plan has changed since; nothing where it has not, or it never was. */
  outdated(what: string, plan: Plan): number | null {
    const took = this.#took.get(what);
    return took && took.of !== sign(plan) ? took.at : null;
  }
}
