/** What stands on the cards of a printer and of a switch that its head meets. Positions are the printer's own. */
import type { KitCard } from '../api/client';
import type { Field } from './fields';

const field = (path: string, label: string, unit = '', more: Partial<Field> = {}): Field => ({
  path,
  label,
  unit,
  ...more
});
/** A position of a printer's axis: always in millimetres. */
const at = (path: string, label: string, more: Partial<Field> = {}) =>
  field(path, label, 'focal', { signed: true, ...more });
const UNKNOWN = { empty: 'not known' } as const;
const NOT_SET = { empty: 'not set' } as const;

const PRINTER: Field[] = [
  field('moves', 'moves', '', { choices: ['head X Z, bed Y', 'head X Y, bed Z', 'head X Y Z'] }),
  at('bed_x_mm', 'bed, along X'),
  at('bed_y_mm', 'bed, along Y'),
  at('low_x_mm', 'X goes from'),
  at('high_x_mm', 'X goes to'),
  at('low_y_mm', 'Y goes from'),
  at('high_y_mm', 'Y goes to'),
  at('high_z_mm', 'Z goes to'),
  at('home_x_mm', 'X is home at'),
  at('home_y_mm', 'Y is home at'),
  field('top_mm_s', 'top speed of X and Y', 'mm/s'),
  field('top_z_mm_s', 'top speed of Z', 'mm/s'),
  field('top_push_mm_s', 'top speed of the filament', 'mm/s'),
  field('print_mm_s2', 'accelerates, printing', 'mm/s²'),
  field('travel_mm_s2', 'accelerates, travelling', 'mm/s²'),
  field('corner_mm_s', 'takes a corner at', 'mm/s'),
  field('extruder', 'extruder', '', { choices: ['direct', 'long tube'] }),
  field('fires', 'tells the camera by', '', { choices: ['switch', 'commands', 'pause'] }),
  field('fire_on', 'commands that fire', '', { commands: true }),
  field('fire_off', 'commands that let go', '', { commands: true }),
  field('hold_s', 'holds by itself for', 's', UNKNOWN),
  field('lamp_on', 'commands for lamps on', '', { commands: true }),
  field('lamp_off', 'commands for lamps off', '', { commands: true }),
  at('park_x_mm', 'parks at X'),
  at('park_y_mm', 'parks at Y', { empty: 'where it is' }),
  field('idle_s', 'heaters off after', 's', UNKNOWN),
  field('filament_apart', 'G90 and G91 leave E alone', '', { choices: ['yes', 'no', 'not known'] }),
  at('probe_from_x_mm', 'levelling probes, X from', NOT_SET),
  at('probe_to_x_mm', 'levelling probes, X to', NOT_SET),
  at('probe_from_y_mm', 'levelling probes, Y from', NOT_SET),
  at('probe_to_y_mm', 'levelling probes, Y to', NOT_SET)
];

/** What concerns this printer: commands only where commands fire, a parking place along X only where no switch says it. */
export function printerFields(card: Extract<KitCard, { kind: 'printer' }>): Field[] {
  const without = {
    switch: ['fire_on', 'fire_off', 'hold_s', 'park_x_mm'],
    // With a command that lets go it is the stop that holds.
    commands: card.fire_off?.length ? ['hold_s'] : [],
    pause: ['fire_on', 'fire_off', 'hold_s']
  }[card.fires ?? 'switch'] as string[];
  return PRINTER.filter(({ path }) => !without.includes(path));
}

export const HEAD_SWITCH: Field[] = [
  field('rides', 'is fixed to', '', { choices: ['gantry', 'frame', 'bed'] }),
  field('axis', 'pressed along', '', { choices: ['X', 'Y'] }),
  field('side', 'at the end that is', '', { choices: ['low', 'high'] }),
  at('clicks_mm', 'clicks at', { empty: 'not read' }),
  field('read_on', 'read on', '', { day: true }),
  field('refitted_on', 'fitted last on', '', { day: true }),
  at('across_mm', 'nozzle then, the other way'),
  at('up_mm', 'nozzle then, in height'),
  field('beyond_mm', 'can be pushed beyond the click', 'mm'),
  field('lets_go_mm', 'lets go after', 'mm'),
  field('deep_mm', 'body, along the way', 'mm'),
  field('wide_mm', 'body, across', 'mm'),
  field('tall_mm', 'body, high', 'mm'),
  field('middle_mm', 'its middle over the nozzle’s tip', 'mm'),
  field('force_n', 'takes a force of', 'N'),
  field('presses', 'made for so many presses', 'times', UNKNOWN),
  field('fixed', 'fixed by', '', { choices: ['screwed', 'clamped', 'glued', 'taped', 'magnet'] })
];
