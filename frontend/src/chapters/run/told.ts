/** The log of a run as it is read: what went wrong or changed by itself, frames that were only taken in groups. */
import type { components } from '../../api/schema';

type Event = components['schemas']['EventLine'];
/** An event; of a group of frames its first, with the last (from nought) of them. */
export type Told = Event & { until?: number };

export function grouped(events: readonly Event[]): Told[] {
  const told: Told[] = [];
  for (const event of events) {
    const last = told.at(-1);
    const alike = event.kind === 'taken' || event.kind === 'missed';
    const goesOn = alike && last?.kind === event.kind && last.said === event.said;
    if (!goesOn || event.frame === null) told.push({ ...event });
    else last.until = event.frame;
  }
  return told;
}
