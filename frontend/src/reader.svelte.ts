/** How this reader wants lengths, masses and clock times written. Kept in the browser, like the look. */
import { browser } from './sheet/store';

const KEY = 'bridle-reader';

export type Order = 'day' | 'month' | 'year';
/** The orders in which a day is written, with a language that writes it so. */
export const ORDERS: Record<Order, { locale: string; label: string }> = {
  day: { locale: 'en-GB', label: '27/09/2026' },
  month: { locale: 'en-US', label: '09/27/2026' },
  year: { locale: 'en-CA', label: '2026-09-27' }
};

interface Choice {
  order: Order;
  imperial: boolean;
  twelve: boolean;
}

const USUAL: Choice = { order: 'day', imperial: false, twelve: false };

function kept(): Choice {
  return { ...USUAL, ...browser.json<object>(KEY) };
}

class Reader {
  #choice = $state.raw<Choice>(kept());

  get imperial(): boolean {
    return this.#choice.imperial;
  }

  get order(): Order {
    return this.#choice.order in ORDERS ? this.#choice.order : 'day';
  }

  get twelve(): boolean {
    return this.#choice.twelve;
  }

  choose(choice: Partial<Choice>): void {
    this.#choice = { ...this.#choice, ...choice };
    // Without a store the choice lasts as long as the page.
    browser.set(KEY, JSON.stringify(this.#choice));
  }
}

export const reader = new Reader();
