/** How far one press of an arrow key, or one notch of a drag, goes: usual, coarser, finer. An interface matter. */
export interface Steps {
  usual: number;
  coarse: number;
  fine: number;
}

const make = (usual: number, coarse: number, fine: number): Steps => ({ usual, coarse, fine });

const BY_UNIT: Record<string, Steps> = {
  frames: make(1, 25, 1),
  rate: make(1, 5, 1),
  times: make(10, 100, 1),
  mm: make(1, 10, 0.1),
  focal: make(1, 10, 0.1),
  deg: make(0.1, 1, 0.01),
  share: make(0.01, 0.05, 0.001),
  'f-number': make(1, 2, 0.1),
  iso: make(100, 400, 10),
  instant: make(60, 600, 1),
  g: make(10, 100, 1),
  stops: make(1, 1, 0.3),
  '': make(1, 10, 1)
};

/** Steps for a value of a unit; durations step finer the shorter they are. */
export function stepsFor(unit: string, value: number): Steps {
  if (unit !== 's' && unit !== 'shutter') return BY_UNIT[unit] ?? make(1, 10, 0.1);
  if (value >= 1800) return make(60, 600, 1);
  if (value >= 60) return make(1, 60, 0.1);
  if (value >= 3) return make(0.5, 5, 0.1);
  return make(0.1, 1, 0.01);
}

/** The next value on the grid of a step, upwards or downwards, as decimal text without float noise. */
export function stepped(value: number, step: number, direction: number): number {
  const next = direction > 0 ? Math.floor(value / step + 1e-6) + 1 : Math.ceil(value / step - 1e-6) - 1;
  return Number((next * step).toFixed(6));
}
