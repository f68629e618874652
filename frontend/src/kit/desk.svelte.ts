import { SvelteMap } from 'svelte/reactivity';
import { api, AwayError, got, sentence, type CardLine, type KitCard, type Trouble } from '../api/client';
import type { components } from '../api/schema';
import { reader } from '../reader.svelte';
import { browser } from '../sheet/store';
import { keysLeft, ownName } from '../sheet/windows';

const MOST_UNDO = 100;
const AGAIN_MS = 1500;
const LEFT = 'bridle.unsaved-cards.';
const STRAY =
  'Changes that could not be saved before belong to a card that is not here. They stay in this browser.';
const KEPT_NOWHERE =
  'This browser keeps nothing for later: its store is full, or closed to this page. Leave this window open until all is saved.';

type Like = components['schemas']['NewCard']['like'];
/** A choice made on a card, or a change of one of its tables. */
export type CardChange = components['schemas']['ChangeCard']['change'];

/** A change of a card, as it can be kept until the server is back. */
type Wish = { id: number; of?: string | undefined } & (
  | { do: 'type'; path: string; text: string }
  | { do: 'set'; path: string; value: unknown; merge?: string | undefined }
  | { do: 'change'; change: CardChange }
  | { do: 'replace'; card: KitCard }
);

interface Step {
  id: number;
  card: KitCard;
  merge: string | undefined;
}

/** The shelf, the card that is held in the hand, and every way to change it. Saved at once, undone card by card. */
export class Desk {
  cards = $state.raw<CardLine[] | null>(null);
  held = $state<number | null>(null);
  /** Cards that this Bridle cannot read. */
  broken = $state.raw<{ id: number; name: string; said: string }[]>([]);
  inBin = $state(0);
  trouble = $state('');
  saved = $state<'saved' | 'saving' | 'not saved'>('saved');
  gone = $state.raw<CardLine | null>(null);
  undos = $state.raw<Step[]>([]);
  redos = $state.raw<Step[]>([]);
  troubles = new SvelteMap<string, string>();
  readonly zone = 'UTC';
  #queue: Promise<boolean> = Promise.resolve(true);
  #wishes: Wish[] = [];
  /** What was left of cards that are not here. */
  #strays: Wish[] = [];
  #closed = false;
  /** How many cards were made here: what was asked before is out of date then. */
  #made = 0;

  /** Whether a change is under way, or waits for the server. */
  get unsettled(): boolean {
    return this.saved !== 'saved' && this.#wishes.length > 0;
  }

  /** Make the changes that a window could not save before it was closed. */
  async takeUp(): Promise<void> {
    const keys = await keysLeft(LEFT);
    const left = keys.flatMap((key) => browser.json<Wish[]>(key) ?? []);
    const here = (wish: Wish) => this.cards?.find((card) => card.identity === wish.of);
    this.#strays = left.filter((wish) => !here(wish));
    // All of them are this window's before the others' are taken away.
    const made = left.flatMap((wish) => {
      const card = here(wish);
      return card ? [this.#wish({ ...wish, id: card.id })] : [];
    });
    if (this.#keep()) keys.filter((key) => key !== LEFT + ownName()).forEach((key) => browser.remove(key));
    if (this.#strays.length) this.trouble = STRAY;
    await Promise.all(made);
  }

  close(): void {
    this.#closed = true;
  }

  get content(): KitCard | undefined {
    return this.card?.card;
  }

  get card(): CardLine | undefined {
    return this.cards?.find((card) => card.id === this.held);
  }

  async look(): Promise<void> {
    const before = this.#made;
    await this.#try(async () => {
      const answer = await api.GET('/api/kit');
      const shelf = got(answer);
      // A card made meanwhile may not be among those that were on their way.
      if (before !== this.#made) return this.look();
      // Nor does it know what was changed meanwhile.
      this.cards = shelf.cards.map((one) => {
        const here = this.cards?.find((other) => other.id === one.id);
        return here && here.version > one.version ? here : one;
      });
      this.broken = shelf.broken;
      this.inBin = shelf.in_bin;
      this.trouble = '';
    });
  }

  hold(id: number | null): void {
    this.held = id;
    this.troubles.clear();
  }

  async make(like: Like): Promise<void> {
    // The card in hand is put down at once: what is typed while the new one is on its way is not meant for it.
    const before = this.held;
    this.hold(null);
    await this.#try(async () => {
      const answer = await api.POST('/api/kit', { body: { like, name: '' } });
      const made = got(answer);
      this.#made += 1;
      this.cards = [...(this.cards ?? []), made];
      this.hold(made.id);
    });
    this.held ??= before;
  }

  async duplicate(card: CardLine): Promise<void> {
    await this.#try(async () => {
      const answer = await api.POST('/api/kit/{card_id}/duplicate', {
        params: { path: { card_id: card.id } }
      });
      const made = got(answer);
      this.#made += 1;
      this.cards = [...(this.cards ?? []), made];
      this.hold(made.id);
    });
  }

  async bin(card: CardLine): Promise<void> {
    await this.#try(async () => {
      got(await api.POST('/api/kit/{card_id}/bin', { params: { path: { card_id: card.id } } }));
      this.gone = card;
      if (this.held === card.id) this.hold(null);
      await this.look();
    });
  }

  async back(id: number): Promise<void> {
    await this.#try(async () => {
      got(await api.POST('/api/kit/{card_id}/back', { params: { path: { card_id: id } } }));
      this.gone = null;
      await this.look();
    });
  }

  /** What was typed at a place of the card in hand. */
  type(path: string, text: string): Promise<boolean> {
    return this.#wish({ id: this.held ?? 0, do: 'type', path, text });
  }

  set(path: string, value: unknown, merge?: string): Promise<boolean> {
    return this.#wish({ id: this.held ?? 0, do: 'set', path, value, merge });
  }

  /** A choice, or a change of a table: what becomes of the card is worked out by the server. */
  change(change: CardChange): Promise<boolean> {
    return this.#wish({ id: this.held ?? 0, do: 'change', change });
  }

  /** Put a whole card in the place of the one in hand, as measuring does. */
  replace(card: KitCard): Promise<boolean> {
    return this.#wish({ id: this.held ?? 0, do: 'replace', card });
  }

  async #wish(asked: Wish): Promise<boolean> {
    const wish = { ...asked, of: this.cards?.find((card) => card.id === asked.id)?.identity };
    this.#wishes.push(wish);
    const done = await this.#next(
      (now) => this.#grant(now, wish),
      () => wish.id
    );
    // What was given up because the screen was left stays in the browser, for the next time it is opened.
    if (this.#closed && !done) return false;
    this.#wishes = this.#wishes.filter((one) => one !== wish);
    this.#keep();
    return done;
  }

  async #grant(now: CardLine, wish: Wish): Promise<boolean> {
    if (wish.do === 'replace') return this.#put(now, wish.card, '');
    if (wish.do === 'set')
      return this.#put(now, placed(now.card, wish.path, wish.value), wish.path, wish.merge);
    if (wish.do === 'change') {
      const asked = await api.POST('/api/kit/change', { body: { card: now.card, change: wish.change } });
      const path = 'path' in wish.change ? wish.change.path : 'card';
      return asked.data ? this.#put(now, asked.data.card, path) : this.#refused(path, asked.error as Trouble);
    }
    const body = { card: now.card, path: wish.path, text: wish.text, imperial: reader.imperial };
    const answer = await api.POST('/api/kit/type', { body });
    if (!answer.data) return this.#refused(wish.path, answer.error as Trouble);
    return this.#put(now, answer.data.card, wish.path);
  }

  /** What waits for the server is kept in the browser, should the window be closed meanwhile. */
  #keep(): boolean {
    const all = [...this.#strays, ...this.#wishes];
    if (all.length) return browser.set(LEFT + ownName(), JSON.stringify(all));
    browser.remove(LEFT + ownName());
    return true;
  }

  undo = (): void => void this.#walk('undo');
  redo = (): void => void this.#walk('redo');

  /** The step is taken when its turn comes: two quick presses undo two steps, and not the same one twice. */
  #walk(way: 'undo' | 'redo'): Promise<boolean> {
    const last = () => (way === 'undo' ? this.undos : this.redos).at(-1);
    const work = async (now: CardLine) => {
      const step = last();
      const before = now.card;
      if (!step || !(await this.#send(now, step.card, ''))) return false;
      const back = { id: step.id, card: before, merge: undefined };
      if (way === 'undo') {
        this.undos = this.undos.slice(0, -1);
        this.redos = [...this.redos, back];
      } else {
        this.redos = this.redos.slice(0, -1);
        this.undos = [...this.undos, back];
      }
      return true;
    };
    return this.#next(work, () => {
      const step = last();
      if (step) this.hold(step.id);
      return step?.id ?? null;
    });
  }

  /** One change after another: each starts from what the one before has left, and waits for a server that is away. */
  #next(work: (now: CardLine) => Promise<boolean>, whose: () => number | null): Promise<boolean> {
    this.#queue = this.#queue.then(async () => {
      const id = whose();
      for (;;) {
        const now = this.cards?.find((card) => card.id === id);
        if (!now) return false;
        this.saved = 'saving';
        try {
          const done = await work(now);
          this.saved = done ? 'saved' : 'not saved';
          return done;
        } catch (error) {
          this.saved = 'not saved';
          this.trouble = sentence(error);
          if (!(error instanceof AwayError) || this.#closed) return false;
          if (!this.#keep()) this.trouble = KEPT_NOWHERE;
          await new Promise((again) => setTimeout(again, AGAIN_MS));
        }
      }
    });
    return this.#queue;
  }

  async #put(now: CardLine, card: KitCard, path: string, merge?: string): Promise<boolean> {
    if (!(await this.#send(now, card, path))) return false;
    this.redos = [];
    const last = this.undos.at(-1);
    if (!(merge && last?.merge === merge && last.id === now.id)) {
      this.undos = [...this.undos, { id: now.id, card: now.card, merge }].slice(-MOST_UNDO);
    }
    return true;
  }

  async #send(now: CardLine, card: KitCard, path: string): Promise<boolean> {
    const answer = await api.PUT('/api/kit/{card_id}', {
      params: { path: { card_id: now.id } },
      body: { version: now.version, card }
    });
    if (answer.data) {
      this.troubles.delete(path);
      this.trouble = '';
      this.#show(answer.data);
      return true;
    }
    if (answer.response.status === 409) {
      const stale = answer.error as { message: string; kept: CardLine };
      this.trouble = `${stale.message} The newer one is shown; make your change again if you still want it.`;
      this.#show(stale.kept);
      return false;
    }
    return this.#refused(path, answer.error as Trouble);
  }

  #show(line: CardLine): void {
    this.cards = (this.cards ?? []).map((one) => (one.id === line.id ? line : one));
  }

  #refused(path: string, trouble: Trouble): boolean {
    const problem = trouble.problems?.[0];
    this.troubles.set(path, problem?.expected ? `Expected ${problem.expected}.` : sentence(trouble));
    return false;
  }

  async #try(work: () => Promise<void>): Promise<void> {
    try {
      await work();
    } catch (error) {
      this.trouble = sentence(error);
    }
  }
}

/** The card with one value put in its place. */
export function placed(card: KitCard, path: string, value: unknown): KitCard {
  const copy = structuredClone(card);
  const way = path.split('.');
  const last = way.pop() ?? '';
  let at = copy as unknown as Record<string, unknown>;
  for (const step of way) at = at[step] as Record<string, unknown>;
  at[last] = value;
  if (!copy.typed?.includes(path)) copy.typed = [...(copy.typed ?? []), path];
  return copy;
}
