import Levels from '../../drawings/span/lanes/Levels.svelte';
import type { Chapter } from '../entry';

/** A scheduled shoot of weeks to years: when its frames are taken, and what the windows come to. */
export default {
  key: 'season',
  label: 'Long run',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'when', label: 'When', windows: true },
    { key: 'controller', label: 'Controller', whole: true, folds: true },
    { key: 'power', label: 'Power and card', whole: true },
    { key: 'box', label: 'Box and mast', whole: true, folds: true },
    { key: 'aim', label: 'Aim and view', whole: true },
    { key: 'visits', label: 'Visits', whole: true }
  ],
  lanes: [{ key: 'levels', behind: true, Drawn: Levels }],
  folds: true
} satisfies Chapter;
