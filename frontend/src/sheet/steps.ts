/** The steps of undo and redo of a shoot, kept in this window, so that they outlive a reload of the page. */
import type { Edit } from '../api/client';
import { ownWindow } from './store';

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
    // Where the window's store is full, fewer steps may fit.
    if (ownWindow.set(PREFIX + shoot, text)) return;
  }
  ownWindow.remove(PREFIX + shoot);
}

export function keptSteps(shoot: number): Steps | null {
  return ownWindow.json<Steps>(PREFIX + shoot);
}
