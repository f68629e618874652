/** The chapters of the sheet in working order. A new one is a folder of its own and a line here. */
import clip from './clip';
import type { Chapter } from './entry';
import light from './light';
import move from './move';
import printing from './printing';
import review from './review';
import rig from './rig';
import run from './run';
import season from './season';
import trigger from './trigger';

export const CHAPTERS: readonly Chapter[] = [clip, rig, move, light, trigger, printing, season, review, run];

/** Those that a shoot has a use for, as the core tells it, and the one that lies open. */
export function chaptersFor(standing: readonly string[], open: string): readonly Chapter[] {
  return CHAPTERS.filter(({ key, folds }) => key === open || !folds || standing.includes(key));
}

export function chapterOf(key: string): Chapter | undefined {
  return CHAPTERS.find((chapter) => chapter.key === key);
}
