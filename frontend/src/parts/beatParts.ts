/** The parts of the beat that can be changed: where they stand in the plan, and how they are written. */
export interface BeatField {
  path: string;
  label: string;
  unit: string;
}

export const BEAT_FIELDS: Record<string, BeatField[]> = {
  wake: [{ path: 'beat.wake_s', label: 'wake', unit: 's' }],
  half: [{ path: 'beat.half_s', label: 'half press ahead', unit: 's' }],
  warm: [{ path: 'beat.warm_s', label: 'lamps warm up', unit: 's' }],
  call: [{ path: 'beat.call_s', label: 'until it presses', unit: 's' }],
  couple: [{ path: 'beat.couple_s', label: 'coupling closes in', unit: 's' }],
  press: [{ path: 'beat.press_s', label: 'pressed for', unit: 's' }],
  lag: [{ path: 'beat.lag_s', label: 'shutter lag', unit: 's' }],
  exposure: [{ path: 'beat.exposure_s', label: 'exposure', unit: 'shutter' }],
  gap: [{ path: 'beat.bracket_gap_s', label: 'gap in the bracket', unit: 's' }],
  process: [{ path: 'beat.merge_s', label: 'merge in the camera', unit: 's' }],
  write: [{ path: 'beat.write_s', label: 'write to card', unit: 's' }],
  move: [],
  settle: [{ path: 'beat.settle_s', label: 'settle', unit: 's' }],
  margin: [
    { path: 'beat.margin', label: 'margin', unit: 'share' },
    { path: 'beat.least_margin_s', label: 'least margin', unit: 's' }
  ],
  spare: []
};
