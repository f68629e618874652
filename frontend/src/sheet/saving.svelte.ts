import { api, AwayError, importPlan, sentence, type Plan, type Stale } from '../api/client';

const WAIT_MS = 400;
const AGAIN_MS = 2500;

export type SaveState = 'saved' | 'saving' | 'waiting' | 'refused' | 'stale';

/** Saves the open plan by itself, and never over somebody else's save. */
export class Saving {
  state = $state<SaveState>('saved');
  at = $state<Date | null>(null);
  trouble = $state('');
  stale = $state.raw<Stale | null>(null);
  version: number;
  #id: number;
  #identity: string;
  #plan: () => Plan;
  #kept: Plan;
  /** Sent, and never answered: it may be kept or not, and is sent again before anything newer. */
  #inDoubt: Plan | null = null;
  #onchange: () => void;
  #timer = 0;
  #busy = false;

  /** `onchange` is called whenever something has become saved, or has not. */
  constructor(
    opened: { id: number; identity: string; version: number },
    plan: () => Plan,
    onchange: () => void
  ) {
    this.#id = opened.id;
    this.#identity = opened.identity;
    this.version = opened.version;
    this.#plan = plan;
    this.#kept = plan();
    this.#onchange = onchange;
  }

  /** The plan has changed: save it soon. */
  soon(): void {
    if (this.state === 'stale') return this.#onchange();
    this.state = 'saving';
    this.#onchange();
    clearTimeout(this.#timer);
    this.#timer = window.setTimeout(() => void this.now(), WAIT_MS);
  }

  /** Save now if there is anything to save. Resolves to whether all is kept. */
  async now(): Promise<boolean> {
    clearTimeout(this.#timer);
    if (this.#busy) {
      this.#timer = window.setTimeout(() => void this.now(), 100);
      return false;
    }
    const plan = this.#inDoubt ?? this.#plan();
    if (plan === this.#kept || this.state === 'stale') return this.state !== 'stale';
    this.#busy = true;
    try {
      return await this.#put(plan);
    } catch (error) {
      if (error instanceof AwayError) this.#inDoubt = plan;
      this.#later(sentence(error));
      return false;
    } finally {
      this.#busy = false;
      this.#onchange();
    }
  }

  /** Wait until everything is kept, as before a run or an export; false if it cannot be. */
  async settle(): Promise<boolean> {
    for (let tries = 0; tries < 30; tries++) {
      if (await this.now()) return true;
      if (this.state === 'stale' || this.state === 'refused' || this.state === 'waiting') return false;
      await new Promise((done) => setTimeout(done, 100));
    }
    return false;
  }

  async #put(plan: Plan): Promise<boolean> {
    const path = { shoot_id: this.#id };
    const answer = await api.PUT('/api/shoots/{shoot_id}', {
      params: { path },
      body: { version: this.version, plan, identity: this.#identity }
    });
    if (answer.data) {
      this.version = answer.data.version;
      this.#kept = plan;
      this.#inDoubt = null;
      this.at = new Date();
      this.state = this.#plan() === plan ? 'saved' : 'saving';
      if (this.state === 'saving') this.soon();
      return this.state === 'saved';
    }
    if (answer.response.status === 409) {
      this.#inDoubt = null;
      this.stale = answer.error as Stale;
      this.state = 'stale';
    } else if (answer.response.status >= 500) this.#later(sentence(answer.error));
    else {
      this.#inDoubt = null;
      this.trouble = sentence(answer.error);
      this.state = 'refused';
    }
    return false;
  }

  #later(why: string): void {
    this.trouble = why;
    this.state = 'waiting';
    this.#timer = window.setTimeout(() => void this.now(), AGAIN_MS);
  }

  /** Keep mine: save over theirs, which stays in the revisions. */
  async keepMine(): Promise<void> {
    if (!this.stale) return;
    this.version = this.stale.kept.version;
    this.stale = null;
    this.state = 'saving';
    await this.now();
  }

  /** Theirs has been taken over into the sheet. */
  tookTheirs(plan: Plan): void {
    if (!this.stale) return;
    this.version = this.stale.kept.version;
    this.#kept = plan;
    this.stale = null;
    this.state = 'saved';
    this.#onchange();
  }

  /** Keep both: mine becomes a shoot of its own. Returns its number. */
  async keepBoth(): Promise<number> {
    const plan = this.#plan();
    const shoot = { ...plan.shoot, name: `${plan.shoot.name.slice(0, 100)}, my version` };
    return (await importPlan(JSON.stringify({ ...plan, shoot }))).id;
  }
}
