import { api, type Figure, type Plan } from '../api/client';

const WAIT_MS = 120;

/** The figures of the frame at the playhead, asked for when the playhead rests. */
export class Moment {
  figures = $state.raw<Record<string, Figure>>({});
  #timer = 0;
  #latest = 0;

  look(plan: Plan, frame: number): void {
    clearTimeout(this.#timer);
    this.#timer = window.setTimeout(() => void this.#ask(plan, frame), WAIT_MS);
  }

  async #ask(plan: Plan, frame: number): Promise<void> {
    const mine = ++this.#latest;
    try {
      const answer = await api.POST('/api/frame', { body: { plan, frame } });
      if (mine !== this.#latest || !answer.data) return;
      this.figures = Object.fromEntries(answer.data.figures.map((figure) => [figure.key, figure]));
    } catch {
      if (mine === this.#latest) this.figures = {};
    }
  }
}
