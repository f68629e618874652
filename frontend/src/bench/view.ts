/** Where a point of the print stands on a canvas: as the camera sees it, or from the front and a little from above. */
import type { components } from '../api/schema';

export type Framed = components['schemas']['Framed'];
export type Side = 'front' | 'left' | 'back' | 'right';
export interface View {
  wide: number;
  tall: number;
  /** A point of the printer, mm, on the canvas. */
  place: (x: number, y: number, up: number) => readonly [number, number];
  /** How many pixels a millimetre is there. */
  scale: (x: number, y: number, up: number) => number;
}
const [MOST_WIDE, MOST_TALL] = [640, 440];
/** How far a mm away from the camera is drawn up where nobody knows the camera. */
const TILT = 0.34;
/** The printer's X and Y as the camera has them: to the right, and away from it. */
const TURNED: Record<Side, readonly [number, number, number, number]> = {
  front: [1, 0, 0, 1],
  back: [-1, 0, 0, -1],
  left: [0, -1, 1, 0],
  right: [0, 1, -1, 0]
};

type Extents = readonly number[];
function about(extents: Extents, side: Side) {
  const [mx, my] = [(extents[0]! + extents[1]!) / 2, (extents[2]! + extents[3]!) / 2];
  const [a, b, c, d] = TURNED[side];
  return (x: number, y: number) => [a * (x - mx) + b * (y - my), c * (x - mx) + d * (y - my)] as const;
}

/** As the camera sees it, in the shape of its picture. */
export function seen(framed: Framed, extents: Extents, side: Side): View {
  const [across, down] = framed.sides as [number, number];
  const factor = Math.min(MOST_WIDE / across, MOST_TALL / down);
  const [wide, tall] = [across * factor, down * factor];
  const [lx, ly, lz] = framed.lens_mm as [number, number, number];
  const [pan, tilt, roll] = framed.turned_deg.map((angle) => (angle * Math.PI) / 180) as [
    number,
    number,
    number
  ];
  const [cp, sp, ct, st, cr, sr] = [pan, tilt, roll].flatMap((a) => [Math.cos(a), Math.sin(a)]) as number[];
  const turned = about(extents, side);
  const into = (x: number, y: number, height: number) => {
    const [right, away] = turned(x, y);
    const [dx, dy, dz] = [right - lx, away - ly, height - lz];
    const level = dx * sp! + dy * cp!;
    const [flat, up] = [dx * cp! - dy * sp!, dz * ct! - level * st!];
    return [flat * cr! - up * sr!, flat * sr! + up * cr!, Math.max(1, level * ct! + dz * st!)] as const;
  };
  return {
    wide,
    tall,
    place: (x, y, height) => {
      const [right, up, ahead] = into(x, y, height);
      return [wide / 2 + (right / ahead) * factor, tall / 2 - (up / ahead) * factor];
    },
    scale: (x, y, height) => factor / into(x, y, height)[2]
  };
}

/** Drawn without a camera: so that the finished part fits, with room for the head. */
export function drawn(extents: Extents, high: number, side: Side): View {
  const turned = about(extents, side);
  const [across, deep] = [Math.abs(extents[1]! - extents[0]!), Math.abs(extents[3]! - extents[2]!)];
  const [wide, back] = side === 'front' || side === 'back' ? [across, deep] : [deep, across];
  const scale = Math.min(MOST_WIDE / (wide + 90), MOST_TALL / (high + back * TILT + 60));
  return {
    wide: MOST_WIDE,
    tall: MOST_TALL,
    place: (x, y, up) => {
      const [right, away] = turned(x, y);
      return [MOST_WIDE / 2 + right * scale, MOST_TALL - 26 - (up + (away + back / 2) * TILT) * scale];
    },
    scale: () => scale
  };
}
