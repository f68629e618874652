/** Things under identities of their own: two that are called the same are told apart by which comes first. */
export function keyed<T>(things: readonly T[], called: (thing: T) => string): { key: string; it: T }[] {
  const times = new Map<string, number>();
  return things.map((it) => {
    const name = called(it);
    const nth = times.get(name) ?? 0;
    times.set(name, nth + 1);
    return { key: `${name}#${nth}`, it };
  });
}
