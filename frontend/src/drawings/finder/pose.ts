/** Where the camera stands and points at any frame: between the evaluated samples, on straight lines. */
import { scaleLinear } from 'd3-scale';
import type { Evaluation, Plan } from '../../api/client';
import { at } from '../../sheet/series';

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
  /** Whether any of its disc is over the horizon. */
  up: boolean;
  /** The light of the drawn scene, from none to all. */
  daylight: number;
}

/** Left, top, width and height as shares of the kept picture. */
export type Crop = [number, number, number, number];
export const WHOLE: Crop = [0, 0, 1, 1];

type Told = Pick<Evaluation, 'traces' | 'view'>;

export function poseAt({ view }: Told, frame: number): Pose | null {
  if (!view) return null;
  const read = (name: keyof Pose) => at(view.poses[name], frame);
  return {
    x: read('x'),
    z: read('z'),
    pan: read('pan'),
    tilt: read('tilt'),
    roll: read('roll'),
    focal: read('focal')
  };
}

/** By how much a camera on a leaned pan looks aside of what a keyframe's pan and tilt say. Degrees. */
export function leanAt({ view, level }: Pick<Evaluation, 'view' | 'level'>, plan: Plan, n: number) {
  const [frame, key] = [view?.keyframes[n], plan.move.keyframes[n]];
  if (!level.length || !view || frame === undefined || !key) return { pan: 0, tilt: 0 };
  return { pan: at(view.poses.pan, frame) - key.pan_deg, tilt: at(view.poses.tilt, frame) - key.tilt_deg };
}

const degrees = (tangent: number) => (Math.atan(tangent) * 180) / Math.PI;

/** The fields of view across and upright at a pose, in degrees: of the lens as it stands then. */
export function viewAt({ view }: Told, pose: Pick<Pose, 'focal'> | null | undefined): [number, number] {
  const [width = 36, height = 24] = view?.kept_mm ?? [];
  const focal = pose?.focal ?? 35;
  return [2 * degrees(width / (2 * focal)), 2 * degrees(height / (2 * focal))];
}

export function sunAt({ view }: Told, frame: number): Sun | null {
  if (!view?.sun) return null;
  const altitude = at(view.sun.altitude, frame);
  return {
    azimuth: at(view.sun.azimuth, frame),
    altitude,
    up: altitude > view.sun_up_deg,
    daylight: scaleLinear(view.daylight_deg, [0, 1]).clamp(true)(altitude)
  };
}

export function cropAt({ view }: Told, frame: number): Crop {
  const [left, top, width, height] = view?.crops ?? [];
  if (!left) return WHOLE;
  return [at(left, frame), at(top, frame), at(width, frame), at(height, frame)];
}

/** The share of its slot for which the shutter is open while the camera moves on; 0 where it stands still. */
export function openShare(plan: Plan, evaluation: Evaluation): number {
  if (plan.beat.school !== 'continuous') return 0;
  return Math.min(1, evaluation.figures['beat.share']?.value ?? 0);
}
