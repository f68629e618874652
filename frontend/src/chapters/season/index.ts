import Levels from '../../drawings/span/lanes/Levels.svelte';
import type { Plan } from '../../api/client';
import { exact } from '../../parts/paths';
import type { Chapter } from '../entry';

const windows = (plan: Plan) => plan.frames?.source === 'windows';
/** From here on somebody has to look after what a camera lives on. */
const LONG_S = 2 * 86_400;
const lasts = (plan: Plan) => exact(plan.clip.pegs?.find(({ quantity }) => quantity === 'shoot')?.value ?? 0);
/** What grows on a window sill needs no box, unless there is one. */
const outside = (plan: Plan) =>
  plan.shoot.kind !== 'grow' || (plan.kit?.copies ?? []).some(({ card }) => card.kind === 'box');

/** A scheduled shoot of weeks to years: when its frames are taken, and what the windows come to. */
export default {
  key: 'season',
  label: 'Long run',
  load: () => import('./Chapter.svelte'),
  leaves: [
    { key: 'when', label: 'When', windows: true },
    { key: 'controller', label: 'Controller', whole: true, needs: windows },
    { key: 'power', label: 'Power and card', whole: true },
    { key: 'box', label: 'Box and mast', whole: true, needs: outside },
    { key: 'aim', label: 'Aim and view', whole: true },
    { key: 'visits', label: 'Visits', whole: true }
  ],
  lanes: [{ key: 'levels', behind: true, Drawn: Levels }],
  needs: (plan) =>
    windows(plan) || plan.shoot.kind === 'site' || plan.shoot.kind === 'grow' || lasts(plan) > LONG_S
} satisfies Chapter;
