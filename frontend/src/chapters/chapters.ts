/** The chapters of the sheet in working order. A new one is a folder of its own and a line here. */
import clip from './clip';
import type { Chapter } from './entry';
import light from './light';
import move from './move';
import review from './review';
import rig from './rig';
import run from './run';
import trigger from './trigger';

export const CHAPTERS: readonly Chapter[] = [clip, rig, move, light, trigger, review, run];

export function chapterOf(key: string): Chapter | undefined {
  return CHAPTERS.find((chapter) => chapter.key === key);
}
