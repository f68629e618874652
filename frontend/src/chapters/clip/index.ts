import type { Chapter } from '../entry';

/** How long, how often, how many. */
export default {
  key: 'clip',
  label: 'Clip',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'suits', label: 'How often' },
    { key: 'beat', label: 'One beat', whole: true },
    { key: 'changing', label: 'A changing interval' },
    { key: 'clock', label: 'On the clock' }
  ]
} satisfies Chapter;
