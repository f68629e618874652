import { api, sentence, type Plan, type Trouble } from '../api/client';
import { reader } from '../reader.svelte';
import type { components } from '../api/schema';
import type { Sheet } from './sheet.svelte';

type AskJog = components['schemas']['AskJog'];
export type Jogged = components['schemas']['Jogged'];
export type Rehearsal = components['schemas']['Rehearsal'];
const NOTHING = { axes: [], amounts: {}, text: '', imperial: false } satisfies Partial<AskJog>;
export type Name = NonNullable<AskJog['axes']>[number];

/** The rig on the simulated controller: where its axes stand, and moving them. */
export class JogRig {
  state = $state.raw<Jogged>();
  said = $state('');
  busy = $state(false);
  rehearsal = $state.raw<Rehearsal>();
  /** The plan whose program was rehearsed. */
  rehearsed = $state.raw<Plan>();
  wrong = $state('');
  readonly sheet: Sheet;

  constructor(sheet: Sheet) {
    this.sheet = sheet;
  }

  /** The axes that a controller moves. */
  get axes(): Name[] {
    return this.sheet.evaluation.programmed;
  }

  /** Where they stand, as far as the controller knows. */
  get at(): Partial<Record<Name, number>> {
    return this.state?.at ?? {};
  }

  get known(): boolean {
    return this.axes.length > 0 && this.axes.every((name) => this.at[name] !== undefined);
  }

  look(): Promise<void> {
    return this.#ask({ do: 'look' }, '');
  }

  reference(axes: Name[]): Promise<void> {
    return this.#ask({ do: 'reference', axes }, 'referenced');
  }

  by(name: Name, step: number): Promise<void> {
    return this.#ask({ do: 'by', axes: [name], amounts: { [name]: step } }, '');
  }

  /** Send an axis to what was typed. */
  type(name: Name, text: string): Promise<void> {
    return this.#ask({ do: 'type', axes: [name], text, imperial: reader.imperial }, 'there');
  }

  go(amounts: Partial<Record<Name, number>>): Promise<void> {
    return this.#ask({ do: 'go', axes: Object.keys(amounts) as Name[], amounts }, 'there');
  }

  async #ask(ask: Pick<AskJog, 'do'> & Partial<AskJog>, done: string): Promise<void> {
    this.busy = true;
    try {
      const body = { shoot: this.sheet.id, plan: this.sheet.plan, ...NOTHING, ...ask };
      const answer = await api.POST('/api/jog', { body });
      if (answer.data) {
        this.state = answer.data;
        this.said = done ? `${done}, after ${answer.data.seconds.toFixed(1)} s` : '';
      } else this.said = sentence(answer.error as Trouble);
    } catch (error) {
      this.said = sentence(error);
    }
    this.busy = false;
  }

  /** Run the drive's program on the simulated controller. */
  async rehearse(): Promise<void> {
    this.busy = true;
    this.wrong = '';
    try {
      await this.sheet.answered();
      const plan = this.sheet.plan;
      const answer = await api.POST('/api/rehearse-program', { body: { plan } });
      this.rehearsal = answer.data;
      this.rehearsed = plan;
      if (!answer.data) this.wrong = sentence(answer.error as Trouble);
    } catch (error) {
      this.wrong = sentence(error);
    }
    this.busy = false;
  }
}
