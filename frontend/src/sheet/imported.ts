/** What a plan file that was just taken in came to otherwise before: told when its sheet is opened, once. */
const waiting = new Map<number, string[]>();

export function imported(shoot: number, changed: string[]): void {
  if (changed.length) waiting.set(shoot, changed);
}

/** What is to be said of a shoot that is opened: what its file brought, or what is kept of it in an older form. */
export function toldOnce(shoot: number, kept: string[]): string[] {
  const brought = waiting.get(shoot) ?? kept;
  waiting.delete(shoot);
  return brought;
}
