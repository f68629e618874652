import type { Plan } from '../api/client';

type Changing = Extract<Plan['frames'], { source: 'changing' }>;
const EVEN: Pick<Changing, 'segments' | 'blend_frames'> = { segments: [], blend_frames: 0 };

/** The segments of an interval that changes over the shoot; none with any other source of frames. */
export function changing(plan: Plan): typeof EVEN {
  return plan.frames?.source === 'changing' ? plan.frames : EVEN;
}
