import Axes from '../../drawings/span/lanes/Axes.svelte';
import type { Chapter } from '../entry';

/** Where the camera goes and what it sees. */
export default {
  key: 'move',
  label: 'Move',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'framing', label: 'Framing' },
    { key: 'marks', label: 'Marks and sight', whole: true },
    { key: 'picture', label: 'The picture' },
    { key: 'again', label: 'Rounds and repeats' },
    { key: 'drives', label: 'The drives', whole: true }
  ],
  lanes: [{ key: 'axes', Drawn: Axes }]
} satisfies Chapter;
