/** The axes as a keyframe has them: the field, its unit, and how finely it is shown. */
import type { Plan } from '../../api/client';

export type AxisName = Plan['rig']['axes'][number]['name'];
type Keyframe = Plan['move']['keyframes'][number];
export type KeyField = 'slide_mm' | 'pan_deg' | 'tilt_deg' | 'roll_deg' | 'focus_mm' | 'zoom_mm';

export const FIELD: Record<AxisName, KeyField> = {
  slide: 'slide_mm',
  pan: 'pan_deg',
  tilt: 'tilt_deg',
  roll: 'roll_deg',
  focus: 'focus_mm',
  zoom: 'zoom_mm'
};

export const SHOWN: Record<AxisName, { unit: string; digits: number; min: number }> = {
  slide: { unit: 'mm', digits: 1, min: -1e6 },
  pan: { unit: 'deg', digits: 2, min: -3600 },
  tilt: { unit: 'deg', digits: 2, min: -90 },
  roll: { unit: 'deg', digits: 2, min: -3600 },
  focus: { unit: 'mm', digits: 0, min: 1 },
  zoom: { unit: 'focal', digits: 1, min: 1 }
};

/** Where an axis stands at a keyframe; an empty zoom is as long as the lens. */
export function stands(key: Keyframe, name: AxisName, plan: Plan): number {
  return key[FIELD[name]] ?? plan.camera.focal_mm;
}
