/** What stands on the cards of what stays outside, and of what can be told hours and days. */
import type { KitCard } from '../api/client';
import type { Field } from './fields';

const field = (path: string, label: string, unit = '', more: Partial<Field> = {}): Field => ({
  path,
  label,
  unit,
  ...more
});
const UNKNOWN = { empty: 'not known' } as const;
const HOLDS = ['yes', 'no', 'not known'] as const;
export const THREADS = [
  '1/4-20',
  '3/8-16',
  'M3',
  'M4',
  'M5',
  'M6',
  'M8',
  'fine',
  'plate',
  'own',
  'none'
] as const;
export const AFTER_CUT = ['goes on', 'forgets its settings', 'stays off', 'not known'] as const;
const MASS = field('mass_g', 'mass', 'g');

export const PANEL: Field[] = [
  field('watts', 'in full sun', 'W'),
  field('usable', 'share that reaches the battery', ''),
  MASS
];

export const BOX: Field[] = [
  field('below', 'stands on', '', { choices: THREADS }),
  field('above', 'carries the camera on', '', { choices: THREADS }),
  field('carries_g', 'carries', 'g', { empty: 'not said' }),
  field('holds_battery', 'the battery stands in it', '', { tick: true }),
  field('wide_mm', 'outside, across', 'mm'),
  field('tall_mm', 'outside, upright', 'mm'),
  field('deep_mm', 'outside, deep', 'mm'),
  field('room_mm', 'from the mount to the glass', 'mm'),
  field('window_mm', 'window, clear across', 'mm'),
  field('holes', 'holes'),
  field('closed', 'with a gland or a plug'),
  field('shade', 'painted', '', { choices: ['white', 'grey', 'black'] }),
  field('roof', 'has a roof that stands off', '', { tick: true }),
  field('vented', 'lets air through', '', { tick: true }),
  field('drip_loop', 'leads in a loop below', '', { choices: HOLDS }),
  field('lock', 'has a lock', '', { tick: true }),
  field('heater_w', 'heater', 'W', { empty: 'none' }),
  MASS
];

/** What a controller can be told of when. */
export function scheduleFields(card: Extract<KitCard, { kind: 'trigger' }>): Field[] {
  if (!card.schedule) return [];
  return [
    field('schedule.days', 'knows days', '', {
      choices: ['any weekdays', 'weekdays or weekends', 'every day alone']
    }),
    field('schedule.spans', 'times from–to in a day'),
    field('schedule.step_min', 'in steps of', 'min'),
    field('schedule.over_midnight', 'may close on the next day', '', { tick: true }),
    field('schedule.follows_change', 'follows the change of clocks', '', { choices: HOLDS }),
    field('schedule.numbers', 'file numbers after a cut', '', {
      choices: ['go on', 'start again', 'overwrite', 'not known']
    }),
    field('schedule.clock_ppm', 'its clock is off by', 'ppm', UNKNOWN),
    field('schedule.cell_months', 'coin cell lasts', 'months', UNKNOWN)
  ];
}
