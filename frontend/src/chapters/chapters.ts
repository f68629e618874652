/** The chapters of the sheet in working order. */
export const CHAPTERS = [
  { key: 'clip', label: 'Clip' },
  { key: 'rig', label: 'Rig' },
  { key: 'move', label: 'Move' },
  { key: 'review', label: 'Review' },
  { key: 'run', label: 'Run' }
] as const;

export type ChapterKey = (typeof CHAPTERS)[number]['key'];
