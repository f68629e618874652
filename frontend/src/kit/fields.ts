/** What stands on each kind of card, in the order in which a person would tell it. */
import drives from '../api/drives.json';
import type { KitCard } from '../api/client';
import { exact } from '../parts/paths';

export interface Field {
  path: string;
  label: string;
  unit: string;
  /** Words to choose from; without them the field is a figure. */
  choices?: readonly string[];
  /** Yes or no. */
  tick?: boolean;
  /** May stand empty: not known, or none. */
  empty?: string;
}

type Kind = KitCard['kind'];
const field = (path: string, label: string, unit = '', more: Partial<Field> = {}): Field => ({
  path,
  label,
  unit,
  ...more
});
const THREADS = ['1/4-20', '3/8-16', 'M3', 'M4', 'M5', 'M6', 'M8', 'fine', 'plate', 'own', 'none'] as const;
const SOCKETS = ['2.5 mm', '3.5 mm', 'USB', 'own', 'none'] as const;
const MASS = field('mass_g', 'mass', 'g');
const JOINT = [
  field('below', 'thread below', '', { choices: THREADS }),
  field('above', 'thread above', '', { choices: THREADS }),
  field('height_mm', 'height', 'mm'),
  field('width_mm', 'width', 'mm'),
  field('carries_g', 'carries', 'g', { empty: 'not said' }),
  field('screw_mm', 'screw stands out', 'mm', { empty: 'no screw' }),
  field('hole_mm', 'hole is deep', 'mm', { empty: 'no hole' })
];
const IMAGER = [
  field('sensor_width_mm', 'sensor, across', 'focal'),
  field('sensor_height_mm', 'sensor, upright', 'focal'),
  field('picture_width_px', 'picture, across', 'px'),
  field('picture_height_px', 'picture, upright', 'px'),
  field('wake_s', 'wakes in', 's'),
  field('lag_s', 'shutter lag', 's'),
  field('write_s', 'writes in', 's'),
  field('buffer_frames', 'buffer', 'frames'),
  field('interval_floor_s', 'shortest real interval', 's'),
  field('interval_step_s', 'interval step', 's'),
  field('sleeps_after_s', 'sleeps after', 's'),
  field('socket', 'socket', '', { choices: SOCKETS })
];
const CAMERA_JOINT = [
  field('below', 'thread below', '', { choices: THREADS }),
  field('height_mm', 'height', 'mm'),
  field('width_mm', 'width', 'mm'),
  field('hole_mm', 'hole is deep', 'mm', { empty: 'no hole' })
];

const FIELDS: Record<Exclude<Kind, 'axis'>, Field[]> = {
  body: [MASS, ...IMAGER, ...CAMERA_JOINT],
  phone: [MASS, field('focal_mm', 'focal length', 'focal'), ...IMAGER, ...CAMERA_JOINT],
  lens: [
    MASS,
    field('focal_mm', 'focal length', 'focal'),
    field('focal_to_mm', 'zooms to', 'focal', { empty: 'fixed' }),
    field('widest_f', 'widest aperture', 'f-number'),
    field('length_mm', 'length', 'mm'),
    field('diameter_mm', 'diameter', 'mm'),
    field('creeps', 'creeps when tilted', '', { tick: true })
  ],
  support: [
    field('form', 'form', '', { choices: ['tripod', 'mast', 'clamp'] }),
    MASS,
    field('feet_radius_mm', 'feet on a circle of radius', 'mm'),
    ...JOINT.filter((one) => !['below', 'hole_mm'].includes(one.path))
  ],
  mount: [
    field('form', 'form', '', { choices: ['plate', 'bush', 'spacer', 'bracket', 'ball head'] }),
    MASS,
    ...JOINT,
    field('offset_mm', 'stands off to the side', 'mm'),
    field('glue', 'glued on', '', { tick: true })
  ],
  trigger: [
    field('source', 'source', '', {
      choices: ['camera timer', 'wired remote', 'controller', 'wireless remote', 'computer', 'app']
    }),
    field('shortest_s', 'shortest interval', 's'),
    field('step_s', 'interval step', 's'),
    field('polling_s', 'looks every', 's'),
    field('most_frames', 'frames at most (0: any)', 'frames'),
    field('longest_run_s', 'runs at most (0: any)', 's'),
    field('coupling', 'coupling', '', { choices: ['none', 'optocoupler', 'relay', 'switch', 'resistor'] }),
    field('socket', 'plug for the camera', '', { choices: SOCKETS }),
    MASS
  ],
  battery: [
    field('volts', 'voltage', 'V'),
    field('amp_hours', 'charge', 'Ah'),
    field('usable', 'share that may be used', ''),
    field('gives_a', 'gives to motors', 'A', { empty: 'feeds none' }),
    field('lithium', 'lithium', '', { tick: true }),
    MASS
  ],
  card: [field('gigabytes', 'size', 'GB'), field('write_mb_s', 'writes', 'MB/s')],
  lamp: [
    field('watts', 'power', 'W'),
    field('kelvin', 'colour temperature', 'K'),
    field('warm_up_s', 'comes on in', 's'),
    field('light', 'light', '', { choices: ['direct', 'bounced'] }),
    field('switch', 'switch', '', { choices: ['level', 'toggle'] }),
    field('on_after_power_up', 'on after power-up', '', { tick: true }),
    MASS
  ],
  filter: [
    field('effect', 'effect', '', { choices: ['neutral density', 'polariser', 'graduated', 'clear'] }),
    field('stops', 'takes', 'stops'),
    field('thread_mm', 'thread', 'focal')
  ]
};

/** What each drive is called, and what is on its card: field by the drives themselves. */
export const DRIVES: Record<string, { name: string; fields: Field[] }> = drives;

function driveFields(card: Extract<KitCard, { kind: 'axis' }>): Field[] {
  const own = card.motion === 'linear' ? 'mm' : 'deg';
  return (DRIVES[card.drive.kind]?.fields ?? []).flatMap((one) => {
    const { empty, ...rest } = one;
    const field = {
      ...rest,
      ...(empty ? { empty } : {}),
      unit: one.unit === 'axis' ? own : one.unit,
      path: `drive.${one.path}`
    };
    const [list, inner] = one.path.split('.*.');
    if (inner === undefined) return [field];
    const things = (card.drive as unknown as Record<string, Record<string, unknown>[]>)[list ?? ''] ?? [];
    return things.map((thing, i) => ({
      ...field,
      path: `drive.${list}.${i}.${inner}`,
      label: one.label.replace(/\{(\w+)\}/, (_, name: string) => String(thing[name]))
    }));
  });
}

function axisFields(card: Extract<KitCard, { kind: 'axis' }>): Field[] {
  const linear = card.motion === 'linear';
  const unit = linear ? 'mm' : 'deg';
  return [
    field('motion', 'moves', '', { choices: ['linear', 'rotary'] }),
    ...(linear
      ? []
      : [field('turns', 'turns as', '', { choices: ['pan', 'tilt', 'roll', 'focus', 'zoom'] })]),
    field('low', 'reaches from', unit),
    field('high', 'to', unit),
    field('top_speed', 'top speed', `${unit}/s`),
    field('acceleration', 'acceleration', `${unit}/s²`),
    field('backlash', 'backlash', unit),
    field('settle_s', 'settles in', 's'),
    field('peak_a', 'draws at most', 'A'),
    MASS,
    ...(linear
      ? [
          field('length_mm', 'rail', 'mm'),
          field('carriage_mm', 'carriage', 'mm'),
          field('carriage_g', 'carriage, mass', 'g'),
          field('end_margin_mm', 'margin at each end', 'mm')
        ]
      : [
          field('off_axis_mm', 'load stands off the axis', 'mm'),
          field('shaft_nmm', 'shaft takes', 'N·mm', { empty: 'not known' })
        ]),
    ...(linear && card.beam
      ? [
          field('beam.count', 'rods'),
          field('beam.outer_mm', 'rod, outside', 'mm'),
          field('beam.inner_mm', 'rod, inside', 'mm'),
          field('beam.modulus_gpa', 'stiffness', 'GPa'),
          field('beam.density_kg_m3', 'density', 'kg/m³')
        ]
      : []),
    ...JOINT,
    ...driveFields(card)
  ];
}

export function fieldsOf(card: KitCard): Field[] {
  return card.kind === 'axis' ? axisFields(card) : FIELDS[card.kind];
}

export const SHELVES: { title: string; kinds: Kind[]; tall: number }[] = [
  { title: 'Cameras and lenses', kinds: ['body', 'phone', 'lens', 'filter'], tall: 84 },
  { title: 'What moves', kinds: ['axis'], tall: 62 },
  { title: 'What stands and joins', kinds: ['support', 'mount'], tall: 92 },
  { title: 'What fires, feeds and lights', kinds: ['trigger', 'battery', 'card', 'lamp'], tall: 64 }
];

export const KIND_NAMES: Record<Kind, string> = {
  body: 'camera body',
  phone: 'phone',
  lens: 'lens',
  filter: 'filter',
  axis: 'rail or turning axis',
  support: 'support',
  mount: 'plate, bush or adapter',
  trigger: 'trigger',
  battery: 'battery',
  card: 'memory card',
  lamp: 'lamp'
};

/** The one figure that tells a card on the shelf. */
export function headline(card: KitCard): { value: number; unit: string; after: string } | null {
  switch (card.kind) {
    case 'body':
    case 'phone':
      return { value: exact(card.write_s), unit: 's', after: 'to write' };
    case 'lens':
      return { value: card.focal_mm, unit: 'lens', after: '' };
    case 'axis':
      return {
        value: card.high - card.low,
        unit: card.motion === 'linear' ? 'mm' : 'deg',
        after: 'of travel'
      };
    case 'support':
      return card.carries_g ? { value: card.carries_g, unit: 'g', after: 'to carry' } : null;
    case 'trigger':
      return { value: exact(card.shortest_s), unit: 's', after: 'at the least' };
    case 'battery':
      return { value: card.volts * card.amp_hours, unit: 'Wh', after: '' };
    case 'card':
      return { value: card.gigabytes, unit: 'GB', after: '' };
    case 'lamp':
      return { value: card.watts, unit: 'W', after: '' };
    case 'filter':
      return { value: card.stops, unit: 'stops', after: '' };
    case 'mount':
      return null;
  }
}
