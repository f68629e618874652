/** Values of a plan or a card by their dotted paths, as edits name them. */

/** What stands at a path; undefined where nothing does. */
export function valueAt(data: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((at, step) => (at as Record<string, unknown> | null)?.[step], data);
}

/** A number that is kept exactly, as text: a decimal or a fraction. */
export function exact(value: unknown): number {
  const [over, under] = String(value).split('/').map(Number);
  return (over ?? 0) / (under ?? 1);
}

/** A value as a number to be shown and stepped; null where it is empty. */
export function numberAt(data: unknown, path: string): number | null {
  const value = valueAt(data, path);
  return value === null || value === undefined ? null : exact(value);
}
