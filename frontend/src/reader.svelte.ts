/** How this reader wants lengths, masses and clock times written. Kept in the browser, like the look. */
const KEY = 'bridle-reader';

interface Choice {
  imperial: boolean;
  twelve: boolean;
}

function kept(): Choice {
  try {
    return { imperial: false, twelve: false, ...JSON.parse(localStorage.getItem(KEY) ?? '{}') };
  } catch {
    return { imperial: false, twelve: false };
  }
}

class Reader {
  #choice = $state.raw<Choice>(kept());

  get imperial(): boolean {
    return this.#choice.imperial;
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
