/** How this reader wants lengths, masses and clock times written. Kept in the browser, like the look. */
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
  try {
    return { ...USUAL, ...JSON.parse(localStorage.getItem(KEY) ?? '{}') };
  } catch {
    return USUAL;
  }
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
    try {
      localStorage.setItem(KEY, JSON.stringify(this.#choice));
    } catch {
      // Without storage the choice lasts as long as the page.
    }
  }
}

export const reader = new Reader();
