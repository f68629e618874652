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

/** By how many stops the picture of a frame is lighter than right; a frame has one exposure from its start to its end. */
export function brightAt({ light }: Pick<Evaluation, 'light'>, frame: number): number {
  return light.bright ? at(light.bright, Math.floor(frame + 1e-6)) : 0;
}

/** Whether it is known how light the pictures come out. */
export const isExposed = ({ light }: Pick<Evaluation, 'light'>): boolean => !!light.bright;

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

/** The moon at a frame, as the sun. */
export function moonAt({ view }: Told, frame: number): Pick<Sun, 'azimuth' | 'altitude' | 'up'> | null {
  if (!view?.moon) return null;
  const altitude = at(view.moon.altitude, frame);
  return { azimuth: at(view.moon.azimuth, frame), altitude, up: altitude > view.sun_up_deg };
}

/** Where a mark stands at a frame that goes with the sky; nothing for any other. */
export function skyAt({ view }: Told, index: number, frame: number) {
  const found = view?.skies?.find((one) => one.index === index);
  return found && { azimuth: at(found.azimuth, frame), altitude: at(found.altitude, frame) };
}

const WAY_POINTS = 60;

/** The ways of sun and moon over the shoot, over the horizon: bearing and height at some frames. */
export function waysOf(told: Told, frames: number): [number, number][][] {
  const along = Array.from({ length: WAY_POINTS + 1 }, (_, n) => (n / WAY_POINTS) * Math.max(0, frames - 1));
  return [sunAt, moonAt].map((of) =>
    along.flatMap((frame) => {
      const body = of(told, frame);
      return body && body.altitude > -2 ? [[body.azimuth, body.altitude] as [number, number]] : [];
    })
  );
}

export function cropAt({ view }: Told, frame: number): Crop {
  const [left, top, width, height] = view?.crops ?? [];
  if (!left) return WHOLE;
  return [at(left, frame), at(top, frame), at(width, frame), at(height, frame)];
}

/** The share of its slot for which the shutter is open while the camera moves on; 0 where it stands still. */
export function openShare(plan: Plan, evaluation: Evaluation, frame: number): number {
  if (plan.beat.school !== 'continuous') return 0;
  const share = evaluation.figures['beat.share']?.value ?? 0;
  const { shutter_s } = evaluation.light;
  // The share is that of the tightest beat; where exposures follow the light each frame has its own.
  const tight = evaluation.beat && shutter_s ? at(shutter_s, evaluation.beat.frame) : 0;
  return Math.min(1, tight && shutter_s ? (share * at(shutter_s, frame)) / tight : share);
}
