/** The side view to scale: millimetres from the first support and the ground, onto the page. */
import type { RigState } from '../../api/client';

export interface Scale {
  x: (mm: number) => number;
  y: (mm: number) => number;
  px: (mm: number) => number;
}

export interface Box {
  left: number;
  right: number;
  top: number;
}

/** What has to fit on the drawing, in millimetres. */
export function boxOf(rig: RigState): Box {
  const supports = rig.parts.filter((part) => part.kind === 'support');
  const others = rig.parts.filter((part) => part.kind !== 'support');
  const shift = (rig.carriage_mm[1] ?? 0) - (rig.carriage_mm[0] ?? 0);
  const edges = [
    ...supports.flatMap((part) => [part.x_mm - part.width_mm / 2, part.x_mm + part.width_mm / 2]),
    ...others.flatMap((part) => [
      part.x_mm - part.width_mm / 2,
      part.x_mm + part.width_mm / 2 + (part.rides ? Math.max(0, shift) : 0)
    ])
  ];
  const tops = rig.parts.map((part) => part.y_mm + part.height_mm);
  return { left: Math.min(...edges, -200), right: Math.max(...edges, 200), top: Math.max(...tops, 300) };
}

export function scaleFor(box: Box, width: number, tall: number, ground: number): Scale {
  const px = Math.min((width - 24) / (box.right - box.left), (ground - 34) / box.top);
  const middle = (box.left + box.right) / 2;
  return {
    x: (mm) => width / 2 + (mm - middle) * px,
    y: (mm) => ground - mm * px,
    px: (mm) => mm * px
  };
}

/** Callouts stand under one another at the side, each as near to its part as the others allow. */
export function spread(wanted: readonly number[], gap: number, top: number, bottom: number): number[] {
  const order = wanted.map((y, i) => ({ y, i })).sort((a, b) => a.y - b.y);
  const placed: number[] = new Array(wanted.length).fill(0);
  let last = top - gap;
  for (const one of order) {
    last = Math.max(one.y, last + gap);
    placed[one.i] = last;
  }
  let next = bottom + gap;
  for (const one of [...order].reverse()) {
    next = Math.min(placed[one.i] ?? 0, next - gap);
    placed[one.i] = next;
  }
  return placed;
}
