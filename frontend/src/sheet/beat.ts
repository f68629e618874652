/** The beat that the ring shows: the tightest, or where exposures follow the light the one at the playhead. */
import type { BeatState, Evaluation } from '../api/client';
import { at } from './series';

export function beatAt(
  { beat, beats, light }: Pick<Evaluation, 'beat' | 'beats' | 'light'>,
  frame: number
): BeatState | null {
  if (!beat || !beats?.length || !light.shutter_s) return beat ?? null;
  const exposed = at(light.shutter_s, frame);
  const off = (one: { exposure_s: number }) => Math.abs(Math.log(one.exposure_s / exposed));
  return beats.reduce((best, one) => (off(one) < off(best) ? one : best)).beat;
}
