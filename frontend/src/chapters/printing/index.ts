import type { Chapter } from '../entry';

/** A layered shoot: its print, the stop at each frame, and whether the file was proven. */
export default {
  key: 'print',
  label: 'Print',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'bed', label: 'The bed', whole: true },
    { key: 'stop', label: 'The stop', whole: true },
    { key: 'file', label: 'File and proof', whole: true },
    { key: 'growth', label: 'Growth', whole: true },
    { key: 'click', label: 'Find the click', whole: true }
  ],
  lanes: [],
  folds: true
} satisfies Chapter;
