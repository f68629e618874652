import { getContext, setContext } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import {
  api,
  AwayError,
  sentence,
  type Change,
  type Edit,
  type Evaluation,
  type Figure,
  type Opened,
  type Plan,
  type PlanThen,
  type Series,
  type Shown,
  type Trouble
} from '../api/client';
import { reader } from '../reader.svelte';
import { restsWith } from '../parts/grasp';
import { handDownEditor } from './editor';
import { Playhead } from './playhead.svelte';
import { Saving } from './saving.svelte';
import { Taken } from './taken.svelte';
import { caughtUp } from './rebase';
import { dragged } from './dragged';
import { keepSteps, keptSteps, type Step, type Steps } from './steps';
import { drop, put, takeUp } from './unsaved';

const MOST_UNDO = 200;
const MERGE_MS = 1500;
/** So long after the last move of a drag the whole answer is asked for. */
const REST_MS = 150;
const AGAIN_MS = 1500;

interface Asked {
  changes: Change[];
  merge: string | undefined;
  kind: 'change' | 'undo' | 'redo' | 'look';
  /** The plan as it stood when this was asked for. */
  seen: Plan;
  done: (accepted: boolean) => void;
}

/** The open plan, what follows from it, and every way to change it. */
export class Sheet {
  readonly id: number;
  /** The shoot's own identity, and that of the data it lies in. */
  readonly identity: string;
  readonly data: string;
  /** Whether what is not saved is kept in this browser; it cannot be where the browser's store is full or closed. */
  keeps = $state(true);
  plan = $state.raw<Plan>() as Plan;
  evaluation = $state.raw<Evaluation>() as Evaluation;
  troubles = new SvelteMap<string, string>();
  offline = $state('');
  undos = $state.raw<Step[]>([]);
  redos = $state.raw<Edit[][]>([]);
  said = $state('');
  /** Figures that are others now than in the older Bridle that wrote the plan, until that is read. */
  changed = $state.raw<string[]>([]);
  /** Which chapter is open, and which leaf of it; nothing where the chapter has none. */
  chapter = $state('');
  leaf = $state('');
  /** How often work was begun from a snag: who shows such work looks at it again. */
  worked = $state(0);
  /** Whether what is dragged here changes only what a brief answer draws. */
  brief = false;
  /** Whether the drawing of the light follows what is dragged here. */
  lit = false;
  /** Whether the calendar of work windows follows a drag. */
  windows = false;
  /** The leaf that lay open last, by chapter. */
  readonly leaves = new Map<string, string>();
  /** How bright each picture comes out under another weather than the plan's, while that is looked at. */
  weathered = $state.raw<Series | null>(null);
  /** How it stood once, while that is looked at; nothing can be changed then. */
  then = $state.raw<PlanThen>();
  readonly saving: Saving;
  readonly playhead: Playhead;
  #queue: Asked[] = [];
  #busy = $state(false);
  /** What is being asked for just now. */
  #current: Asked | undefined;
  #rest = 0;
  #closed = false;
  /** The steps that this window had before it was loaded again. */
  #steps: Steps | null = null;
  /** The plan and what follows from it now, while another time is looked at. */
  #now: { plan: Plan; evaluation: Evaluation } | undefined;

  /** What was taken along of it, to be told where it has changed since. */
  readonly taken: Taken;

  constructor(opened: Opened) {
    this.id = opened.id;
    this.identity = opened.identity;
    this.data = opened.data;
    this.plan = opened.plan;
    this.evaluation = opened.evaluation;
    this.saving = new Saving(
      opened,
      () => this.#now?.plan ?? this.plan,
      () => {
        this.#keepUnsaved();
        this.#keepSteps();
      }
    );
    this.changed = opened.changed ?? [];
    this.taken = new Taken(opened.id);
    this.#steps = keptSteps(opened.id);
    if (this.#steps?.saved && this.#steps.version === opened.version) this.#takeSteps();
    this.playhead = new Playhead(
      () => this.evaluation.frames ?? 1,
      () => this.quantity('rate')?.value ?? 25,
      () => this.plan.clip.backwards
    );
  }

  /** What could be undone goes on being undone after a reload, where the plan is the one that it belongs to. */
  #takeSteps(): void {
    this.undos = this.#steps?.undos ?? [];
    this.redos = this.#steps?.redos ?? [];
    this.#steps = null;
  }

  #keepSteps(): void {
    const { version, state } = this.saving;
    keepSteps(this.id, { version, saved: state === 'saved', undos: this.undos, redos: this.redos });
  }

  get content(): Plan {
    return this.plan;
  }

  get zone(): string {
    return this.plan.shoot.place.zone;
  }

  get start(): number {
    return this.figure('time.first')?.value ?? Date.parse(this.plan.shoot.clock.at) / 1000;
  }

  quantity(name: string) {
    return this.evaluation.clip.quantities.find((quantity) => quantity.quantity === name);
  }

  figure(key: string): Shown | undefined {
    const found = this.evaluation.figures[key];
    return found && { ...found, key };
  }

  /** The working of a figure, as the plan stands. */
  async working(key: string): Promise<Figure> {
    const answer = await api.POST('/api/working', { body: { plan: this.plan, key } });
    if (!answer.data) throw answer.error;
    return answer.data;
  }

  /** Whether something is under way that would be lost, or not be seen to be kept, if the window closed now. */
  get unsettled(): boolean {
    return this.#busy || this.#queue.length > 0 || this.saving.state !== 'saved';
  }

  /** Once nothing that was asked for is on its way any more; not while the server is away. */
  async rested(): Promise<void> {
    while ((this.#busy || this.#queue.length) && !this.offline)
      await new Promise((done) => setTimeout(done, REST_MS / 10));
  }

  /** Keep everything, what is on its way too, before it is taken along. False where that cannot be done. */
  async settle(): Promise<boolean> {
    await this.rested();
    return this.saving.settle();
  }

  /** Whether a change is being worked out: what is drawn still belongs to the plan before it. */
  get answering(): boolean {
    return this.#busy;
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

  set(path: string, value: number | string | boolean | null, merge?: string): Promise<boolean> {
    return this.change([{ do: 'set', path, value }], merge);
  }

  /** Put any value at a path, as a switch does. */
  put(path: string, value: unknown): void {
    void this.apply([{ path, value: value as Edit['value'] }]);
  }

  /** Begin what stands at a path with its usual values; on a list, one more. */
  begin(path: string, kind = ''): void {
    void this.change([{ do: 'begin', path, kind }]);
  }

  /** Take one thing out of a list. */
  drop(path: string): void {
    void this.change([{ do: 'drop', path }]);
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
    if (asked.kind === 'change')
      return asked.changes.map((change) => caughtUp(change, asked.seen, this.plan));
    const edits = asked.kind === 'undo' ? this.undos.at(-1)?.edits : this.redos.at(-1);
    return edits ? [{ do: 'edits', edits }] : [];
  }

  #ask(asked: Omit<Asked, 'done' | 'seen'>): Promise<boolean> {
    if (this.then) {
      this.said = 'This is how it stood once. Go back to now, or bring this back, to change anything.';
      return Promise.resolve(false);
    }
    return new Promise((done) => {
      const last = this.#queue.at(-1);
      if (last && asked.merge && last.merge === asked.merge) {
        last.done(false);
        this.#queue.pop();
      }
      this.#queue.push({ ...asked, seen: this.plan, done });
      void this.#pump();
    });
  }

  async #pump(): Promise<void> {
    if (this.#busy) return;
    this.#busy = true;
    const givenUp: Asked[] = [];
    for (let asked = this.#queue.shift(); asked; asked = this.#queue.shift()) {
      this.#current = asked;
      const accepted = await this.#insist(asked).catch((error: unknown) => {
        console.error(error);
        this.said = sentence(error);
        return false;
      });
      asked.done(accepted);
      if (this.#closed && !accepted) givenUp.push(asked);
    }
    this.#busy = false;
    this.#current = undefined;
    // Given up because the sheet was left: it stays in the browser, for whoever opens the shoot next.
    this.#queue = givenUp;
    this.#keepUnsaved();
  }

  /** A change is not lost because the server is away: it is asked for again until there is an answer. */
  async #insist(asked: Asked): Promise<boolean> {
    for (;;) {
      try {
        const accepted = await this.#send(asked);
        this.offline = '';
        return accepted;
      } catch (error) {
        // Only the server's being away is waited out; what has been answered is not asked for twice.
        if (!(error instanceof AwayError)) throw error;
        if (this.#closed || asked.kind === 'look') return false;
        this.offline = sentence(error);
        this.#keepUnsaved();
        await new Promise((done) => setTimeout(done, AGAIN_MS));
      }
    }
  }

  async #send(asked: Asked): Promise<boolean> {
    const changes = this.#changes(asked);
    if (asked.kind === 'look') return this.#look();
    if (!changes.length) return false;
    const path = placeOf(changes[0]);
    const body = { plan: this.plan, changes };
    const dragging = asked.merge !== undefined && asked.kind === 'change' && this.brief;
    const answer = dragging
      ? await api.POST('/api/drag', { body: { ...body, lit: this.lit, windows: this.windows } })
      : await api.POST('/api/evaluate', { body });
    // Answered: from here on it stands in the plan, or nowhere.
    this.#current = undefined;
    if (!answer.data) {
      this.#refused(path, answer.error as Trouble);
      return false;
    }
    this.troubles.delete(path);
    this.said = '';
    this.#remember(asked, answer.data.undo);
    this.plan = answer.data.plan;
    if ('brief' in answer.data) {
      this.evaluation = dragged(this.evaluation, answer.data.brief);
      this.#lookSoon();
    } else this.evaluation = answer.data.evaluation;
    this.saving.soon();
    return true;
  }

  /** When a drag rests, all that follows from it is asked for: fixes, settings, workings. */
  #lookSoon(): void {
    clearTimeout(this.#rest);
    this.#rest = window.setTimeout(() => {
      if (this.#queue.length || this.#busy) this.#lookSoon();
      else void this.#ask({ changes: [], merge: undefined, kind: 'look' });
    }, REST_MS);
  }

  /** Something beside the plan has changed: what it comes to is asked for once more. */
  lookAgain(): void {
    void this.#ask({ changes: [], merge: undefined, kind: 'look' });
  }

  async #look(): Promise<boolean> {
    const plan = this.plan;
    const answer = await api.POST('/api/evaluate', { body: { plan, changes: [] } });
    if (answer.data && this.plan === plan) this.evaluation = answer.data.evaluation;
    return answer.data !== undefined;
  }

  /** What is not saved yet is kept in the browser, with what has not even been worked out. */
  #keepUnsaved(): void {
    const asked = this.#current ? [this.#current, ...this.#queue] : this.#queue;
    const waiting = asked.filter(({ kind }) => kind === 'change').map(({ changes }) => changes);
    if (this.saving.state === 'saved' && !waiting.length) {
      this.keeps = true;
      return drop(this.identity);
    }
    const plan = this.#now?.plan ?? this.plan;
    const name = plan.shoot.name;
    const { id: shoot, identity, data } = this;
    this.keeps = put({ shoot, identity, data, version: this.saving.version, plan, changes: waiting, name });
  }

  /** The window is about to close: also what has had no answer yet is kept in the browser. */
  leave(): void {
    if (this.unsettled) this.#keepUnsaved();
  }

  /** Bring in what another window, or this one before its reload, could not save. */
  async takeUp(): Promise<void> {
    const left = await takeUp(this);
    if (!left) return;
    if (JSON.stringify(left.plan) !== JSON.stringify(this.plan)) {
      this.saving.version = left.version;
      this.plan = left.plan;
      if (this.#steps && !this.#steps.saved && this.#steps.version === left.version) this.#takeSteps();
      this.saving.soon();
      await this.#ask({ changes: [], merge: undefined, kind: 'look' });
    }
    for (const changes of left.changes) await this.change(changes);
    this.said = 'What could not be saved before has been brought back.';
    this.#keepUnsaved();
  }

  /** The sheet is left: what is under way is finished or kept in the browser. */
  close(): void {
    this.#closed = true;
    clearTimeout(this.#rest);
    this.playhead.stop();
    void this.saving.now();
  }

  /** Everything that was asked for has had its answer: the plan is what its person means it to be. */
  async answered(): Promise<void> {
    while (this.#busy) await new Promise((done) => setTimeout(done, 30));
  }

  /** Look at how it stood once, or at now again. */
  async lookAt(version: number | null): Promise<void> {
    if (version === null) {
      if (this.#now) ({ plan: this.plan, evaluation: this.evaluation } = this.#now);
      this.#now = undefined;
      this.then = undefined;
      return;
    }
    await this.answered();
    const path = { shoot_id: this.id, version };
    const answer = await api.GET('/api/shoots/{shoot_id}/revisions/{version}', { params: { path } });
    if (!answer.data) throw answer.error;
    this.#now ??= { plan: this.plan, evaluation: this.evaluation };
    this.then = answer.data;
    this.plan = answer.data.plan;
    this.evaluation = answer.data.evaluation;
    this.said = '';
  }

  /** Bring back how it stood once, as one change that can be undone. */
  async bringBack(version: number): Promise<boolean> {
    await this.lookAt(null);
    const path = { shoot_id: this.id, version };
    const answer = await api.POST('/api/shoots/{shoot_id}/revisions/{version}/back', {
      params: { path },
      body: { plan: this.plan }
    });
    if (!answer.data) throw answer.error;
    return answer.data.edits.length === 0 || this.apply(answer.data.edits);
  }

  #refused(path: string, trouble: Trouble): void {
    const problem = trouble.problems?.[0];
    // Where nothing was typed, nothing else was expected for it: the sentence says it all.
    const typed = problem?.expected && problem.stood;
    this.troubles.set(problem?.path || path, typed ? `Expected ${problem.expected}.` : sentence(trouble));
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
    // A drag is one step however long it paused; arrow keys are, while they come one soon after another.
    const goesOn = asked.merge?.startsWith('drag ') || Date.now() - (last?.at ?? 0) < MERGE_MS;
    if (last && asked.merge && last.merge === asked.merge && goesOn) {
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
    this.evaluation = theirs.evaluation;
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
  restsWith(() => sheet.rested());
  setContext(KEY, () => sheet);
}

/** For parts that also stand where no sheet is open. */
export function maybeTheSheet(): Sheet | undefined {
  return getContext<(() => Sheet) | undefined>(KEY)?.();
}

export function theSheet(): Sheet {
  return getContext<() => Sheet>(KEY)();
}
