/** Where the camera stands and points at any frame: between the evaluated samples, on straight lines. */
import type { Evaluation, Plan } from '../../api/client';
import { sample } from '../span/geometry';

/** Lengths in millimetres, angles in degrees. */
export interface Pose {
  x: number;
  z: number;
  pan: number;
  tilt: number;
  roll: number;
  focal: number;
}

export interface Sun {
  azimuth: number;
  altitude: number;
}

/** Left, top, width and height as shares of the kept picture. */
export type Crop = [number, number, number, number];
export const WHOLE: Crop = [0, 0, 1, 1];

type Told = Pick<Evaluation, 'traces' | 'view'>;

export function poseAt(told: Told, frame: number): Pose | null {
  const { traces, view } = told;
  if (!traces || !view) return null;
  const at = (name: keyof Pose) => sample(traces.frames, view.poses[name] ?? [], frame);
  return { x: at('x'), z: at('z'), pan: at('pan'), tilt: at('tilt'), roll: at('roll'), focal: at('focal') };
}

export function sunAt(told: Told, frame: number): Sun | null {
  const { traces, view } = told;
  if (!traces || !view?.sun) return null;
  const { azimuth = [], altitude = [] } = view.sun;
  return { azimuth: sample(traces.frames, azimuth, frame), altitude: sample(traces.frames, altitude, frame) };
}

export function cropAt(told: Told, frame: number): Crop {
  const { traces, view } = told;
  const crops = view?.crops ?? [];
  if (!traces || !crops[0]?.length) return WHOLE;
  const side = (index: number) =>
    sample(
      traces.frames,
      crops.map((crop) => crop[index] ?? 0),
      frame
    );
  return [side(0), side(1), side(2), side(3)];
}

/** The share of its slot for which the shutter is open while the camera moves on; 0 where it stands still. */
export function openShare(plan: Plan, told: Evaluation): number {
  if (plan.beat.school !== 'continuous') return 0;
  return Math.min(1, told.figures['beat.share']?.value ?? 0);
}
