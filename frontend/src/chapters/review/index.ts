import type { Chapter } from '../entry';

/** Before the start. */
export default {
  key: 'review',
  label: 'Review',
  load: () => import('./Chapter.svelte'),
  leaves: [],
  lanes: []
} satisfies Chapter;
