import { getContext, setContext } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import {
  api,
  sentence,
  type Change,
  type Edit,
  type Evaluation,
  type Opened,
  type Plan,
  type Trouble
} from '../api/client';
import { reader } from '../reader.svelte';
import { handDownEditor } from './editor';
import { Playhead } from './playhead.svelte';
import { Saving } from './saving.svelte';

const MOST_UNDO = 200;
const MERGE_MS = 1500;

interface Asked {
  changes: Change[];
  merge: string | undefined;
  kind: 'change' | 'undo' | 'redo';
  done: (accepted: boolean) => void;
}

interface Step {
  edits: Edit[];
  merge: string | undefined;
  at: number;
}

/** The open plan, what follows from it, and every way to change it. */
export class Sheet {
  readonly id: number;
  plan = $state.raw<Plan>() as Plan;
  told = $state.raw<Evaluation>() as Evaluation;
  troubles = new SvelteMap<string, string>();
  offline = $state('');
  undos = $state.raw<Step[]>([]);
  redos = $state.raw<Edit[][]>([]);
  said = $state('');
  /** Which part of the clip chapter lies open. */
  leaf = $state<'suits' | 'beat' | 'changing' | 'clock'>('suits');
  /** Which part of the move chapter lies open. */
  moveLeaf = $state<'framing' | 'marks' | 'picture' | 'again' | 'drives'>('framing');
  readonly saving: Saving;
  readonly playhead: Playhead;
  #queue: Asked[] = [];
  #busy = false;

  constructor(opened: Opened) {
    this.id = opened.id;
    this.plan = opened.plan;
    this.told = opened.evaluation;
    this.saving = new Saving(opened.id, opened.version, () => this.plan);
    this.playhead = new Playhead(
      () => this.told.frames ?? 1,
      () => this.quantity('rate')?.value ?? 25
    );
  }

  get zone(): string {
    return this.plan.shoot.place.zone;
  }

  get start(): number {
    return this.figure('time.first')?.value ?? Date.parse(this.plan.shoot.clock.at) / 1000;
  }

  quantity(name: string) {
    return this.told.clip.quantities.find((one) => one.quantity === name);
  }

  figure(key: string) {
    return this.told.figures[key];
  }

  /**
   * Ask for changes. Changes with the same `merge` that come while one is under way replace each other (a drag),
   * and count as one step of undo.
   */
  change(changes: Change[], merge?: string): Promise<boolean> {
    return this.#ask({ changes, merge, kind: 'change' });
  }

  type(path: string, text: string): Promise<boolean> {
    return this.change([{ do: 'type', path, text, imperial: reader.imperial }]);
  }

  set(path: string, value: number | string | boolean, merge?: string): Promise<boolean> {
    return this.change([{ do: 'set', path, value }], merge);
  }

  apply(edits: Edit[]): Promise<boolean> {
    return this.change([{ do: 'edits', edits }]);
  }

  undo(): Promise<boolean> {
    return this.#ask({ changes: [], merge: undefined, kind: 'undo' });
  }

  redo(): Promise<boolean> {
    return this.#ask({ changes: [], merge: undefined, kind: 'redo' });
  }

  /** What an undo or redo does is settled when its turn comes: those before it in the queue move the stacks. */
  #changes(asked: Asked): Change[] {
    if (asked.kind === 'change') return asked.changes;
    const edits = asked.kind === 'undo' ? this.undos.at(-1)?.edits : this.redos.at(-1);
    return edits ? [{ do: 'edits', edits }] : [];
  }

  #ask(asked: Omit<Asked, 'done'>): Promise<boolean> {
    return new Promise((done) => {
      const last = this.#queue.at(-1);
      if (last && asked.merge && last.merge === asked.merge) {
        last.done(false);
        this.#queue.pop();
      }
      this.#queue.push({ ...asked, done });
      void this.#pump();
    });
  }

  async #pump(): Promise<void> {
    if (this.#busy) return;
    this.#busy = true;
    for (let asked = this.#queue.shift(); asked; asked = this.#queue.shift()) {
      asked.done(await this.#send(asked));
    }
    this.#busy = false;
  }

  async #send(asked: Asked): Promise<boolean> {
    const changes = this.#changes(asked);
    if (!changes.length) return false;
    const path = placeOf(changes[0]);
    try {
      const answer = await api.POST('/api/evaluate', { body: { plan: this.plan, changes } });
      this.offline = '';
      if (!answer.data) {
        this.#refused(path, answer.error as Trouble);
        return false;
      }
      this.troubles.delete(path);
      this.#remember(asked, answer.data.undo);
      this.plan = answer.data.plan;
      this.told = answer.data.evaluation;
      this.saving.soon();
      return true;
    } catch (error) {
      this.offline = sentence(error);
      return false;
    }
  }

  #refused(path: string, trouble: Trouble): void {
    const problem = trouble.problems?.[0];
    this.troubles.set(
      problem?.path || path,
      problem?.expected ? `Expected ${problem.expected}.` : sentence(trouble)
    );
  }

  #remember(asked: Asked, back: Edit[]): void {
    if (asked.kind === 'undo') {
      this.undos = this.undos.slice(0, -1);
      this.redos = [...this.redos, back];
      return;
    }
    if (asked.kind === 'redo') this.redos = this.redos.slice(0, -1);
    else this.redos = [];
    const last = this.undos.at(-1);
    if (last && asked.merge && last.merge === asked.merge && Date.now() - last.at < MERGE_MS) {
      this.undos = [...this.undos.slice(0, -1), { ...last, at: Date.now() }];
      return;
    }
    this.undos = [...this.undos, { edits: back, merge: asked.merge, at: Date.now() }].slice(-MOST_UNDO);
  }

  /** Take what another window has saved; what stood here can be had back with undo. */
  async takeTheirs(): Promise<void> {
    const theirs = this.saving.stale?.kept;
    if (!theirs) return;
    const mine = this.saving.stale?.differences ?? [];
    this.plan = theirs.plan;
    this.told = theirs.evaluation;
    this.undos = [...this.undos, { edits: mine, merge: undefined, at: Date.now() }];
    this.redos = [];
    this.saving.tookTheirs(theirs.plan);
  }
}

function placeOf(change: Change | undefined): string {
  if (!change) return '';
  if ('path' in change) return change.path;
  if ('quantity' in change) return `clip.${change.quantity}`;
  if ('edits' in change) return change.edits[0]?.path ?? '';
  return change.do;
}

const KEY = Symbol('sheet');

export function handDown(sheet: Sheet): void {
  handDownEditor(sheet);
  setContext(KEY, () => sheet);
}

/** For parts that also stand where no sheet is open. */
export function maybeTheSheet(): Sheet | undefined {
  return getContext<(() => Sheet) | undefined>(KEY)?.();
}

export function theSheet(): Sheet {
  return getContext<() => Sheet>(KEY)();
}
