import type { Chapter } from '../entry';

/** Who tells the camera, and whether it hears. */
export default {
  key: 'trigger',
  label: 'Trigger',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'chain', label: 'The chain', whole: true },
    { key: 'wires', label: 'Which wire is which', whole: true },
    { key: 'lamps', label: 'Lamps', whole: true },
    { key: 'bench', label: 'On the bench', whole: true },
    { key: 'afar', label: 'From afar', whole: true }
  ],
  lanes: []
} satisfies Chapter;
