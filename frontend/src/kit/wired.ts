/** What stands on the cards of everything with wires on it: only what concerns this source, this coupling. */
import type { KitCard } from '../api/client';
import type { Field } from './fields';
import { AFTER_CUT, scheduleFields } from './outdoors';

type Trigger = Extract<KitCard, { kind: 'trigger' }>;
type Coupling = Extract<KitCard, { kind: 'coupling' }>;
const field = (path: string, label: string, unit = '', more: Partial<Field> = {}): Field => ({
  path,
  label,
  unit,
  ...more
});
const UNKNOWN = { empty: 'not known' } as const;
const SOCKETS = ['2.5 mm', '3.5 mm', 'USB', 'own', 'none'] as const;
const HOLDS = ['yes', 'no', 'not known'] as const;
const MASS = field('mass_g', 'mass', 'g');
const SOURCES = [
  'camera timer',
  'wired remote',
  'controller',
  'switch',
  'pin',
  'host command',
  'wireless remote',
  'app',
  'computer',
  'camera board',
  'headset'
] as const;

/** Whether a source drives a pin, which has a voltage. */
export const drivesPin = (card: Trigger) =>
  card.source === 'pin' ||
  card.source === 'host command' ||
  (card.source === 'controller' && card.coupling === 'none');

/** What a camera hears over its contacts. */
export const INPUT: Field[] = [
  field('hears', 'hears', '', {
    choices: ['half and full press', 'full press', 'headset button', 'nothing']
  }),
  field('half_first', 'releases only while half pressed', '', { choices: HOLDS }),
  field('least_press_s', 'notices a press of', 's', UNKNOWN),
  field('input_v', 'voltage at its contacts', 'V'),
  field('priority', 'before it has focus', '', { choices: ['release', 'focus', 'not known'] })
];
export const PHONE_INPUT: Field[] = [
  field('hears', 'hears', '', { choices: ['headset button', 'nothing'] }),
  field('fires_on', 'its app fires on', '', {
    choices: ['volume up', 'volume down', 'play', 'not known']
  })
];

export function triggerFields(card: Trigger): Field[] {
  const pin = drivesPin(card);
  const radio = ['wireless remote', 'app', 'camera board', 'computer'].includes(card.source!);
  const pressed = card.source === 'switch';
  return [
    field('source', 'source', '', { choices: SOURCES }),
    field('shortest_s', 'shortest interval', 's', UNKNOWN),
    field('step_s', 'interval step', 's', UNKNOWN),
    field('intervals', 'its only intervals, in seconds, a line each', '', { commands: true }),
    field('extra_frames', 'makes more frames than it is told', 'frames'),
    field('polling_s', 'looks every', 's', UNKNOWN),
    field('most_frames', 'frames at most', 'frames', { empty: 'any' }),
    field('longest_run_s', 'runs at most', 's', { empty: 'any' }),
    field('delay_s', 'takes until it presses', 's'),
    ...(pressed || radio || card.source === 'headset'
      ? []
      : [field('half_press', 'half presses too', '', { tick: true })]),
    ...(card.source === 'controller'
      ? [field('coupling', 'coupling', '', { choices: ['none', 'optocoupler', 'relay', 'switch'] })]
      : []),
    ...(pin
      ? [
          field('volts', 'pin stands at, while on', 'V', { empty: 'not measured' }),
          field('pin_ma', 'a pin gives', 'mA', UNKNOWN),
          field('supply_v', 'a supply pin gives', 'V')
        ]
      : []),
    ...(pressed ? [field('presses', 'made for so many presses', 'times', UNKNOWN)] : []),
    ...(card.source === 'wireless remote'
      ? [
          field('fed', 'runs on', '', { choices: ['its own cell', 'a supply'] }),
          field('cell_presses', 'its cell lasts for presses', 'times', UNKNOWN)
        ]
      : []),
    ...(card.source === 'headset' ? [field('button_ohm', 'its button has', 'Ω')] : []),
    ...(radio
      ? [
          field('range_mm', 'reaches', 'mm', UNKNOWN),
          field('sleeps_after_s', 'sleeps after', 's'),
          field('link_drops', 'when its link drops it', '', {
            choices: ['stops', 'goes on by itself', 'not known']
          })
        ]
      : []),
    field('socket', 'plug for the camera', '', { choices: SOCKETS }),
    ...(card.source === 'camera timer' || pressed ? [] : [field('draws_w', 'draws', 'W', UNKNOWN)]),
    ...(pressed ? [] : [field('after_cut', 'after a power cut it', '', { choices: AFTER_CUT })]),
    ...scheduleFields(card),
    MASS
  ];
}

export function couplingFields(card: Coupling): Field[] {
  const form = field('form', 'form', '', { choices: ['optocoupler', 'relay', 'resistor'] });
  if (card.form === 'resistor') return [form, field('contact_ohm', 'resistance', 'Ω'), MASS];
  const late = [field('operate_s', 'closes in', 's'), field('release_s', 'lets go in', 's')];
  if (card.form === 'optocoupler')
    return [
      form,
      field('channels', 'channels'),
      field('series_ohm', 'resistor before its light', 'Ω'),
      field('needs_ma', 'its light needs', 'mA'),
      field('forward_v', 'its light takes', 'V'),
      field('contact_ohm', 'its output has, while lit', 'Ω'),
      ...late,
      MASS
    ];
  return [
    form,
    field('channels', 'channels'),
    field('driver', 'has a driver of its own', '', { tick: true }),
    field('coil_v', 'made for', 'V'),
    card.driver ? field('needs_ma', 'asks a pin for', 'mA') : field('coil_ma', 'its coil draws', 'mA'),
    ...(card.driver ? [] : [field('diode', 'has a diode over its coil', '', { tick: true })]),
    field('contact_ohm', 'its closed contact has', 'Ω'),
    ...late,
    field('presses', 'made for so many presses', 'times', UNKNOWN),
    MASS
  ];
}

export const CABLE: Field[] = [
  field('made', 'made', '', { choices: ['bought for this camera', 'cut open'] }),
  field('from_plug', 'plug at what fires', '', { choices: SOCKETS }),
  field('to_plug', 'plug at the camera', '', { choices: SOCKETS }),
  field('length_mm', 'length', 'mm'),
  field('ohm_per_m', 'a wire has', 'Ω/m'),
  field('bend_mm', 'plug and bend need', 'mm', UNKNOWN),
  MASS
];
export const SUPPLY: Field[] = [
  field('volts', 'voltage', 'V'),
  field('gives_a', 'gives', 'A'),
  field('from_mains', 'runs on the mains', '', { tick: true }),
  MASS
];
