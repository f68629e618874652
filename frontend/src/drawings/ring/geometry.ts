/** Geometry of the beat ring: one interval is one turn, clockwise from the top. */
export function at(share: number, radius: number): [number, number] {
  const angle = share * 2 * Math.PI - Math.PI / 2;
  return [Math.cos(angle) * radius, Math.sin(angle) * radius];
}

/** An arc from one share of the turn to another; a full turn is drawn as two halves. */
export function arc(from: number, to: number, radius: number): string {
  if (to - from <= 0) return '';
  const end = Math.min(to, from + 0.99999);
  const [x1, y1] = at(from, radius);
  const [x2, y2] = at(end, radius);
  const large = end - from > 0.5 ? 1 : 0;
  return `M${x1.toFixed(2)} ${y1.toFixed(2)}A${radius} ${radius} 0 ${large} 1 ${x2.toFixed(2)} ${y2.toFixed(2)}`;
}
