import type { Chapter } from '../entry';

/** What it stands on, and what moves. */
export default {
  key: 'rig',
  label: 'Rig',
  load: () => import('./Chapter.svelte'),
  leaves: [],
  lanes: []
} satisfies Chapter;
