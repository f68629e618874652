import { browser } from '../sheet/store';

/** The look of the page: chosen anywhere, remembered on this machine. */
export const LOOKS = ['paper', 'cyanotype', 'safelight'] as const;
export type Look = (typeof LOOKS)[number];

const KEY = 'bridle.look';

function remembered(): Look {
  const kept = browser.get(KEY);
  return LOOKS.find((look) => look === kept) ?? 'paper';
}

class LookState {
  now = $state<Look>(remembered());

  constructor() {
    document.documentElement.dataset.look = this.now;
  }

  take(look: Look): void {
    this.now = look;
    document.documentElement.dataset.look = look;
    browser.set(KEY, look);
  }

  next(): void {
    this.take(LOOKS[(LOOKS.indexOf(this.now) + 1) % LOOKS.length] ?? 'paper');
  }
}

export const look = new LookState();
