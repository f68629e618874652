import ChangeKnobs from '../../drawings/span/lanes/ChangeKnobs.svelte';
import Changes from '../../drawings/span/lanes/Changes.svelte';
import Events from '../../drawings/span/lanes/Events.svelte';
import Frames from '../../drawings/span/lanes/Frames.svelte';
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
  ],
  lanes: [
    { key: 'frames', Drawn: Frames },
    { key: 'events', Drawn: Events },
    { key: 'changes', Drawn: Changes, Held: ChangeKnobs }
  ]
} satisfies Chapter;
