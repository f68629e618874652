import Settings from '../../drawings/span/lanes/Settings.svelte';
import Night from '../../drawings/span/lanes/Night.svelte';
import type { Chapter } from '../entry';

/** What lights the scene, and what the camera is set to. */
export default {
  key: 'light',
  label: 'Light',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'fall', label: 'The fall of light', lit: true },
    { key: 'changes', label: 'The changes', whole: true },
    { key: 'sky', label: 'The sky' },
    { key: 'beside', label: 'Worked out beside', whole: true }
  ],
  lanes: [
    { key: 'night', behind: true, Drawn: Night },
    { key: 'settings', Drawn: Settings }
  ]
} satisfies Chapter;
