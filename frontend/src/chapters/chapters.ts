/** The chapters of the sheet in working order. A new one is a folder of its own and a line here. */
import type { Plan } from '../api/client';
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

/** Those that a shoot has a use for, and the one that lies open. */
export function chaptersFor(plan: Plan, open: string): readonly Chapter[] {
  return CHAPTERS.filter((chapter) => chapter.key === open || !chapter.needs || chapter.needs(plan));
}

export function chapterOf(key: string): Chapter | undefined {
  return CHAPTERS.find((chapter) => chapter.key === key);
}
