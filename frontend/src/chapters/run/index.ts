import type { Chapter } from '../entry';

/** The shoot under way. */
export default {
  key: 'run',
  label: 'Run',
  load: () => import('./Chapter.svelte'),
  leaves: [],
  lanes: []
} satisfies Chapter;
