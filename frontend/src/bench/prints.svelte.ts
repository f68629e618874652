/** The prints that are here, looked at again while something is done on one of them. */
import { api, got, sentence } from '../api/client';
import type { components } from '../api/schema';

export type PrintLine = components['schemas']['PrintLine'];
export type Work = components['schemas']['WorkTold'];
export type Proof = components['schemas']['ProofTold'];
const LOOK_MS = 400;
/** A demo that sleeps is woken by the look itself, where there is room for it. */
const ASLEEP_MS = 1500;

export const busy = (print: PrintLine) =>
  print.works.some((work) => ['waiting', 'running'].includes(work.state));

export class Prints {
  all = $state.raw<PrintLine[] | null>(null);
  trouble = $state('');
  #timer = 0;
  #closed = false;

  /** Look now, and again as long as something is under way. */
  async look(): Promise<void> {
    clearTimeout(this.#timer);
    try {
      this.all = got(await api.GET('/api/prints'));
      this.trouble = '';
    } catch (error) {
      this.trouble = sentence(error);
    }
    const soon = this.trouble || this.all?.some((one) => busy(one) || one.state === 'reading');
    if (!this.#closed && (soon || this.all?.some((one) => one.state === 'asleep')))
      this.#timer = window.setTimeout(() => void this.look(), soon ? LOOK_MS : ASLEEP_MS);
  }

  async stop(work: Work): Promise<void> {
    await this.#try(async () =>
      got(await api.POST('/api/prints/work/{work_id}/stop', { params: { path: { work_id: work.id } } }))
    );
  }

  async drop(print: PrintLine): Promise<void> {
    await this.#try(async () => {
      await api.DELETE('/api/prints/{print_id}', { params: { path: { print_id: print.id } } });
    });
  }

  async begin(
    print: PrintLine,
    kind: Work['kind'],
    plan: components['schemas']['Plan'] | null,
    beside: number | null = null
  ): Promise<void> {
    await this.#try(async () =>
      got(
        await api.POST('/api/prints/{print_id}/work', {
          params: { path: { print_id: print.id } },
          body: { kind, plan, beside }
        })
      )
    );
  }

  async #try(does: () => Promise<unknown>): Promise<void> {
    try {
      await does();
      await this.look();
    } catch (error) {
      this.trouble = sentence(error);
    }
  }

  close(): void {
    this.#closed = true;
    clearTimeout(this.#timer);
  }
}
