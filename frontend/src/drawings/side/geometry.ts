/** Geometry of the side view: the lens at nought, away from it along x, upwards along y; heights may be stretched. */
export const HEIGHT = 118;
export const LENS_X = 92;
const FOOT = 16;
const HEAD = 6;
const RIGHT = 40;
/** Room over the lens that is drawn in any case, in millimetres. */
const OVER = 900;

export interface Standing {
  y_mm: number;
  z_mm: number;
}

/** How far the drawing reaches: to the same scale both ways as far as it is wide; what stands further off squeezes it. */
export function farOf(width: number, lensMm: number, marks: readonly Standing[]): number {
  const natural = ((width - LENS_X - RIGHT) * (lensMm + OVER)) / (HEIGHT - FOOT - HEAD);
  return Math.max(natural, ...marks.map(({ y_mm }) => y_mm * 1.12).filter((y) => y < natural * 3));
}

/** How high over the lens it reaches, for the marks that are on it. */
export function highOf(farMm: number, marks: readonly Standing[]): number {
  return Math.max(OVER, ...marks.filter(({ y_mm }) => y_mm < farMm).map(({ z_mm }) => z_mm * 1.2));
}

export interface Scale {
  x: (mm: number) => number;
  y: (mm: number) => number;
  mmX: (px: number) => number;
  mmY: (px: number) => number;
  /** How much larger heights are drawn than distances. */
  stretched: number;
}

export function scale(width: number, lensMm: number, farMm: number, highMm: number): Scale {
  const px = (width - LENS_X - RIGHT) / farMm;
  const py = (HEIGHT - FOOT - HEAD) / (lensMm + highMm);
  return {
    x: (mm) => LENS_X + mm * px,
    y: (mm) => HEIGHT - FOOT - (mm + lensMm) * py,
    mmX: (at) => (at - LENS_X) / px,
    mmY: (at) => (HEIGHT - FOOT - at) / py - lensMm,
    stretched: py / px
  };
}

/** How high a sight line is at a distance, and the tilt that points to a place. */
export const rise = (tiltDeg: number, mm: number) => Math.tan((tiltDeg * Math.PI) / 180) * mm;
export const tiltTo = (x: number, y: number) => (Math.atan2(y, Math.max(x, 1)) * 180) / Math.PI;
