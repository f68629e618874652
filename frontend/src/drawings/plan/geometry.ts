/** Geometry of the plan drawing: seen from above, the rail along x, the scene away from it along y (upwards). */
import { ascending, max, min, range } from 'd3-array';
import { line } from 'd3-shape';

export interface Frame {
  width: number;
  height: number;
  /** What the drawing has to hold, in millimetres. */
  left: number;
  right: number;
  far: number;
  /** How far behind the rail it reaches, in millimetres. */
  behind: number;
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

/** A place on the drawing in pixels, and how far a needle there is turned from straight up, in degrees. */
export interface Pointed {
  x: number;
  y: number;
  turned: number;
}

/** The same scale both ways, the content in the middle. */
export function scale(frame: Frame): Scale {
  const deep = frame.far + frame.behind;
  const px = Math.min(frame.width / (frame.right - frame.left), (frame.height - frame.under) / deep);
  const padX = (frame.width - (frame.right - frame.left) * px) / 2;
  const bottom = frame.height - frame.under - frame.behind * px;
  return {
    mm: px,
    x: (mm) => padX + (mm - frame.left) * px,
    y: (mm) => bottom - mm * px,
    mmX: (at) => (at - padX) / px + frame.left,
    mmY: (at) => (bottom - at) / px
  };
}

/** How much of what is ahead is drawn behind, where the camera looks there. */
const BEHIND = 0.75;

/**
 * What has to be on the drawing: the rail, what is followed or else the nearest mark ahead, and more of the scene the
 * further it is zoomed out. `back` says that the camera looks behind itself on the way, or what is followed stands there.
 * Millimetres.
 */
export function content(
  low: number,
  high: number,
  ahead: readonly number[],
  followed: number | undefined,
  zoom: number,
  back = false
): Pick<Frame, 'left' | 'right' | 'far' | 'behind'> {
  const length = high - low;
  const nearest = min(ahead.filter((y) => y > 0));
  const near = followed && followed > 0 ? followed * 1.45 : (nearest ?? 0) * 1.3;
  const far = Math.max(length * 1.1, near) * zoom;
  const side = Math.max(length * 0.62, far * 0.45);
  const middle = (low + high) / 2;
  return { left: middle - side, right: middle + side, far, behind: back ? far * BEHIND : 0 };
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;
const degrees = (turn: number) => (turn * 180) / Math.PI;

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
  return degrees(Math.atan2(toX - xMm, toY));
}

/** A round size for the squares of the ground, in millimetres. */
export function square(acrossMm: number): number {
  const rough = acrossMm / 7;
  const power = 10 ** Math.floor(Math.log10(rough));
  return ([1, 2, 5, 10].find((n) => n * power >= rough) ?? 10) * power;
}

const MOST_LINES = 400;

/** The multiples of a step from one end to the other, both included; never more than can be drawn. */
export function multiples(low: number, high: number, step: number): number[] {
  const first = Math.ceil(low / step);
  const count = Math.floor(high / step) - first + 1;
  return range(Math.max(0, Math.min(count, MOST_LINES))).map((n) => (first + n) * step);
}

/** Boxes that would lie on one another stand in rows, the first that has room; nought is the rail itself. */
export function rows(xs: readonly number[], wide: number, most: number): number[] {
  const ends: number[] = [];
  const made: number[] = [];
  const order = xs.map((x, n) => ({ n, x })).sort((a, b) => ascending(a.x, b.x));
  for (const { n, x } of order) {
    const free = ends.findIndex((end) => x - end >= wide);
    const row = free < 0 ? ends.length : free;
    ends[row] = x;
    made[n] = Math.min(row, most);
  }
  return made;
}

const EDGE = 16;

/** Where the way from a place to something beyond the drawing meets its edge. Pixels. */
export function edge(
  from: [number, number],
  towards: [number, number],
  width: number,
  height: number
): Pointed {
  const [cx, cy] = from;
  const [dx, dy] = [towards[0] - cx, towards[1] - cy];
  const side = (way: number, at: number, size: number) =>
    way > 0 ? (size - EDGE - at) / way : way < 0 ? (EDGE - at) / way : Infinity;
  const share = Math.min(side(dx, cx, width), side(dy, cy, height));
  return { x: cx + dx * share, y: cy + dy * share, turned: degrees(Math.atan2(dx, -dy)) };
}

/** A place on the compass, whose top is square to the rail. Pixels from its middle. */
export function onCompass(fromNormalDeg: number, radius: number): [number, number] {
  const turn = radians(fromNormalDeg);
  return [Math.sin(turn) * radius, -Math.cos(turn) * radius];
}

/** The way of the sun over the compass, as an SVG path. */
export function sunWay(fromNormalDeg: readonly number[], radius: number): string {
  return line().digits(1)(fromNormalDeg.map((turn) => onCompass(turn, radius))) ?? '';
}

/** How far the furthest mark wants the drawing zoomed out, so that all are on it. Marks as [x, y] in millimetres. */
export function zoomForAll(marks: readonly [number, number][], far: number): number {
  const furthest = max(marks, ([x, y]) => Math.max(y * 1.1, Math.abs(x) * 1.2)) ?? 0;
  return Math.max(furthest, 1) / far;
}
