/** Geometry of the plan drawing: seen from above, the rail along x, the scene away from it along y (upwards). */
export interface Frame {
  width: number;
  height: number;
  /** What the drawing has to hold, in millimetres. */
  left: number;
  right: number;
  far: number;
  /** Room below the rail for boxes and the dimension line, in pixels. */
  under: number;
}

export interface Scale {
  mm: number;
  x: (mm: number) => number;
  y: (mm: number) => number;
  mmX: (px: number) => number;
  mmY: (px: number) => number;
}

/** The same scale both ways, the content in the middle. */
export function scale(frame: Frame): Scale {
  const px = Math.min(frame.width / (frame.right - frame.left), (frame.height - frame.under) / frame.far);
  const padX = (frame.width - (frame.right - frame.left) * px) / 2;
  const bottom = frame.height - frame.under;
  return {
    mm: px,
    x: (mm) => padX + (mm - frame.left) * px,
    y: (mm) => bottom - mm * px,
    mmX: (at) => (at - padX) / px + frame.left,
    mmY: (at) => (bottom - at) / px
  };
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** A point at a distance in the direction of a pan: 0 square to the rail, clockwise positive. */
export function ahead(xMm: number, panDeg: number, distanceMm: number): [number, number] {
  return [xMm + Math.sin(radians(panDeg)) * distanceMm, Math.cos(radians(panDeg)) * distanceMm];
}

/** The outline of a field of view: from the camera along its left edge, over an arc, and back. */
export function wedge(to: Scale, xMm: number, panDeg: number, fovDeg: number, radiusMm: number): string {
  const [x1, y1] = ahead(xMm, panDeg - fovDeg / 2, radiusMm);
  const [x2, y2] = ahead(xMm, panDeg + fovDeg / 2, radiusMm);
  const r = radiusMm * to.mm;
  return `M${to.x(xMm)} ${to.y(0)}L${to.x(x1)} ${to.y(y1)}A${r} ${r} 0 ${fovDeg > 180 ? 1 : 0} 1 ${to.x(x2)} ${to.y(y2)}Z`;
}

/** The pan that points from a place on the rail to a point of the drawing, for a handle that is dragged. */
export function pointing(xMm: number, toX: number, toY: number): number {
  return (Math.atan2(toX - xMm, toY) * 180) / Math.PI;
}

/** A round size for the squares of the ground, in millimetres. */
export function square(acrossMm: number): number {
  const rough = acrossMm / 7;
  const power = 10 ** Math.floor(Math.log10(rough));
  return ([1, 2, 5, 10].find((n) => n * power >= rough) ?? 10) * power;
}
