import { api, got, sentence, type RunView } from '../api/client';
import type { Weather } from './weather';

const LOOK_MS = 350;
const IDLE_MS = 2500;
const MOST_EVENTS = 400;

/** How fast simulated time goes: times real time, 0 for as fast as it goes. */
export type Speed = 0 | 1 | 60 | 600 | 86400;
type Asked = 'pause' | 'go on' | 'stop' | 'visit' | 'cut' | null;

/** The run that is looked at: asks the server how it goes, and passes on what is asked of it. */
export class RunWatch {
  run = $state.raw<RunView | null>(null);
  events = $state.raw<RunView['events']>([]);
  loaded = $state(false);
  trouble = $state('');
  /** Runs of which it cannot be told any more where they are. */
  damaged = $state.raw<{ id: number; said: string; under_way: boolean }[]>([]);
  seen = $state(0);
  #shoot: number;
  #timer = 0;
  #ended = false;
  /** What is told is that the server could not answer; it goes away when it does. */
  #away = false;

  constructor(shoot: number) {
    this.#shoot = shoot;
  }

  get under(): boolean {
    return this.run !== null && !['finished', 'stopped'].includes(this.run.phase);
  }

  async open(): Promise<void> {
    await this.#try(async () => {
      const answer = await api.GET('/api/shoots/{shoot_id}/runs', {
        params: { path: { shoot_id: this.#shoot } }
      });
      const found = got(answer);
      this.damaged = found.damaged;
      const latest = found.runs[0];
      if (latest) await this.look(latest.id);
      this.loaded = true;
    });
    this.#again();
  }

  /** Put an end to a run that is damaged, so that another can begin. */
  async giveUp(id: number): Promise<void> {
    await this.#try(async () => {
      got(await api.POST('/api/runs/{run_id}/give-up', { params: { path: { run_id: id } } }));
      this.damaged = this.damaged.map((one) => (one.id === id ? { ...one, under_way: false } : one));
      this.trouble = '';
    });
  }

  async look(id: number): Promise<void> {
    const same = this.run?.id === id;
    const after = same ? (this.events.at(-1)?.number ?? -1) + 1 : 0;
    const answer = await api.GET('/api/runs/{run_id}', {
      params: { path: { run_id: id }, query: { after } }
    });
    this.#take(got(answer), same);
  }

  async begin(speed: Speed, weather: Weather = 'as planned', comes = true): Promise<void> {
    await this.#try(async () => {
      const path = { shoot_id: this.#shoot };
      const answer = await api.POST('/api/shoots/{shoot_id}/runs', {
        params: { path },
        body: { speed, weather, comes }
      });
      if (answer.data) this.#take(answer.data, false);
      else this.trouble = sentence(answer.error);
    });
  }

  async ask(what: Asked, speed: Speed | null = null): Promise<void> {
    const run = this.run;
    if (!run) return;
    await this.#try(async () => {
      const answer = await api.POST('/api/runs/{run_id}/ask', {
        params: { path: { run_id: run.id } },
        body: { what, speed }
      });
      await this.look(run.id);
      // Told after the look, so that it stands beside how the run is by then.
      this.trouble = answer.error ? sentence(answer.error) : '';
    });
  }

  close(): void {
    this.#ended = true;
    clearTimeout(this.#timer);
  }

  #take(run: RunView, same: boolean): void {
    const known = same ? (this.events.at(-1)?.number ?? -1) : -1;
    const fresh = run.events.filter((event) => event.number > known);
    this.events = [...(same ? this.events : []), ...fresh].slice(-MOST_EVENTS);
    this.run = run;
    this.seen = performance.now();
  }

  #again(): void {
    if (this.#ended) return;
    this.#timer = window.setTimeout(
      async () => {
        const run = this.run;
        if (run && this.under) await this.#try(() => this.look(run.id));
        this.#again();
      },
      this.under ? LOOK_MS : IDLE_MS
    );
  }

  async #try(work: () => Promise<void>): Promise<void> {
    try {
      await work();
      if (this.#away) this.trouble = '';
      this.#away = false;
    } catch (error) {
      this.trouble = sentence(error);
      this.#away = true;
    }
  }
}
