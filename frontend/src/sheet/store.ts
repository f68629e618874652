/**
 * The browser's own stores. They may be full, or closed to this page altogether: nothing here throws, and whoever
 * keeps something hears whether it is kept.
 */
class Kept {
  #of: () => Storage;

  constructor(of: () => Storage) {
    this.#of = of;
  }

  get(key: string): string | null {
    try {
      return this.#of().getItem(key);
    } catch {
      return null;
    }
  }

  /** Whether it is kept now. */
  set(key: string, value: string): boolean {
    try {
      this.#of().setItem(key, value);
      return true;
    } catch {
      return false;
    }
  }

  remove(key: string): void {
    try {
      this.#of().removeItem(key);
    } catch {
      // What cannot be reached is not there.
    }
  }

  keys(): string[] {
    try {
      return Object.keys(this.#of());
    } catch {
      return [];
    }
  }

  /** What is kept under a key as JSON; nothing where it is none. */
  json<T>(key: string): T | null {
    try {
      return JSON.parse(this.get(key) ?? 'null') as T | null;
    } catch {
      return null;
    }
  }
}

export const browser = new Kept(() => localStorage);
/** Of this window alone; it outlives a reload. */
export const ownWindow = new Kept(() => sessionStorage);
