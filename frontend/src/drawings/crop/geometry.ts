/** Geometry of crops: shares of what is kept of the frame, onto the drawing. */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** The middle of a crop and its width, as shares of what is kept. */
export interface Crop {
  across: number;
  down: number;
  width: number;
}

/** What is kept of a frame, in its middle; all of it where nothing is known. Frame in pixels, sensor and kept in mm. */
export function keptOf(frame: [number, number], sensor: [number, number], keptMm: readonly number[]): Box {
  const [wide = sensor[0], high = sensor[1]] = keptMm;
  const [w, h] = [(wide / sensor[0]) * frame[0], (high / sensor[1]) * frame[1]];
  return { x: (frame[0] - w) / 2, y: (frame[1] - h) / 2, w, h };
}

/** A box given as left, top, width and height in shares of what is kept. */
export function boxOf(kept: Box, [left, top, width, height]: readonly [number, number, number, number]): Box {
  return { x: kept.x + left * kept.w, y: kept.y + top * kept.h, w: width * kept.w, h: height * kept.h };
}

/** A crop as it is taken: as near to its middle as it can be without leaving what is kept. */
export function boxOfCrop(kept: Box, { across, down, width }: Crop): Box {
  const half = width / 2;
  const inside = (middle: number) => Math.min(1 - half, Math.max(half, middle)) - half;
  return boxOf(kept, [inside(across), inside(down), width, width]);
}
