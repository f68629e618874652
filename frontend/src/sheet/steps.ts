/** The steps of undo and redo of a shoot, kept in this window, so that they outlive a reload of the page. */
import type { Edit } from '../api/client';

export interface Step {
  edits: Edit[];
  merge: string | undefined;
  at: number;
}

export interface Steps {
  /** The version that the plan was saved as, and whether all of it was saved when these were kept. */
  version: number;
  saved: boolean;
  undos: Step[];
  redos: Edit[][];
}

const PREFIX = 'bridle.steps.';
const MOST = 60;
const MOST_LETTERS = 400_000;

/** The newest steps, as many as there is room for. */
export function keepSteps(shoot: number, { version, saved, undos, redos }: Steps): void {
  for (let most = MOST; most > 0; most = Math.floor(most / 2)) {
    const text = JSON.stringify({ version, saved, undos: undos.slice(-most), redos: redos.slice(-most) });
    if (text.length > MOST_LETTERS) continue;
    try {
      sessionStorage.setItem(PREFIX + shoot, text);
      return;
    } catch {
      // The window's store is full: fewer steps may fit.
    }
  }
  sessionStorage.removeItem(PREFIX + shoot);
}

export function keptSteps(shoot: number): Steps | null {
  try {
    return JSON.parse(sessionStorage.getItem(PREFIX + shoot) ?? 'null') as Steps | null;
  } catch {
    return null;
  }
}
