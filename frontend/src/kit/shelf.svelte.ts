/** What lies on the shelf for a rig, and what has changed there since the plan took its copies. */
import { api, got, sentence, type CardLine, type Changed, type Plan } from '../api/client';
import type { LIKES } from './fields';
import type { Sheet } from '../sheet/sheet.svelte';

/** Which versions of which cards a plan has copies of. */
export const versionsOf = (plan: Plan) =>
  plan.kit.copies.map(({ key, card_id, version }) => `${key} ${card_id} ${version}`).join();

export class RigShelf {
  cards = $state.raw<CardLine[] | null>(null);
  changed = $state.raw<Changed[]>([]);
  trouble = $state('');
  /** Why the last card could not be put on. */
  refused = $state('');
  making = $state(false);
  #starters = $state.raw<number[]>([]);
  /** What a rig to begin with is put together from. */
  usualNames = $state.raw<string[]>([]);
  readonly #sheet: Sheet;

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }

  /** A rig to begin with, out of what lies there. */
  readonly starters = $derived(this.cards?.filter((line) => this.#starters.includes(line.id)) ?? []);

  get #kind() {
    const { kind } = this.#sheet.plan.shoot;
    return kind ? { kind } : {};
  }

  look(): Promise<void> {
    return this.#try(async () =>
      this.#take(got(await api.GET('/api/kit', { params: { query: this.#kind } })))
    );
  }

  async compare(plan: Plan): Promise<void> {
    if (!plan.kit.copies.some((copy) => copy.card_id)) {
      this.changed = [];
      return;
    }
    try {
      const answer = await api.POST('/api/kit/compare', { body: { plan } });
      // What has been put on or taken over meanwhile is asked about anew.
      if (answer.data && versionsOf(plan) === versionsOf(this.#sheet.plan))
        this.changed = answer.data.changed;
    } catch {
      // The offer comes back with the next change; nothing depends on it.
    }
  }

  async putOn(lines: readonly CardLine[]): Promise<void> {
    const cards = lines.map(({ id, version, card }) => ({ card_id: id, version, card }));
    const taken = await this.#sheet.change([{ do: 'put', cards }]);
    this.refused = taken ? '' : (this.#sheet.troubles.get('put') ?? '');
  }

  /** How many copies of a card are on the rig. */
  standing({ id }: CardLine): number {
    return this.#sheet.plan.kit.copies.filter((copy) => copy.card_id === id).length;
  }

  /** A card of each thing that a rig needs and that is not there, with its defaults, and the rig from them. */
  async usual(lacks?: readonly string[]): Promise<void> {
    this.making = true;
    await this.#try(async () => {
      this.#take(got(await api.POST('/api/kit/usual', { params: { query: this.#kind } })));
      // Of each usual thing one lies there now, in their order.
      const wanted = this.#starters.filter((_, n) => !lacks || lacks.includes(this.usualNames[n]!));
      const cards = wanted.flatMap((id) => this.cards?.find((line) => line.id === id) ?? []);
      await this.putOn(cards);
    });
    this.making = false;
  }

  /** A new card with sensible figures, put on at once. */
  async make(like: keyof typeof LIKES): Promise<void> {
    this.making = true;
    await this.#try(async () => {
      const fresh = got(await api.POST('/api/kit', { body: { like, name: '' } }));
      this.cards = [...(this.cards ?? []), fresh];
      await this.putOn([fresh]);
    });
    this.making = false;
  }

  takeOver(change: Changed): void {
    const copies = this.#sheet.plan.kit.copies.map((copy) =>
      copy.key === change.key ? change.copy_now : copy
    );
    void this.#sheet.change([{ do: 'fit', copies }]);
  }

  #take(shelf: { cards: CardLine[]; starters: number[]; usual: string[] }): void {
    this.cards = shelf.cards;
    this.#starters = shelf.starters;
    this.usualNames = shelf.usual;
  }

  async #try(work: () => Promise<void>): Promise<void> {
    try {
      await work();
    } catch (error) {
      this.trouble = sentence(error);
    }
  }
}
