/** What stands on each kind of card, in the order in which a person would tell it. */
import drives from '../api/drives.json';
import type { KitCard } from '../api/client';
import { exact } from '../parts/paths';
import { AFTER_CUT, BOX, PANEL, THREADS } from './outdoors';
import { HEAD_SWITCH, printerFields } from './printing';
import { CABLE, couplingFields, INPUT, PHONE_INPUT, SUPPLY, triggerFields } from './wired';

export interface Field {
  path: string;
  label: string;
  unit: string;
  /** Words to choose from; without them the field is a figure. */
  choices?: readonly string[];
  /** Yes or no. */
  tick?: boolean;
  /** Yes and no in two words, of which somebody has to choose one: the usual one may be wrong. */
  yes_no?: readonly string[];
  /** A day. */
  day?: boolean;
  /** Commands, one a line. */
  commands?: boolean;
  /** A few words. */
  words?: boolean;
  /** May be less than nought. */
  signed?: boolean;
  /** May stand empty: not known, or none. */
  empty?: string;
}

/** A list on a card, a row for each thing in it. */
export interface Table {
  path: string;
  label: string;
  columns: Field[];
  fewest: number;
}

/** What belongs together on a card. */
export interface Group {
  title: string;
  /** Where the drive stands whose kind is chosen here. */
  drive?: string;
  /** Which further axis of a head it is. */
  further?: number;
  fields: Field[];
  tables: Table[];
}

type Kind = KitCard['kind'];
const field = (path: string, label: string, unit = '', more: Partial<Field> = {}): Field => ({
  path,
  label,
  unit,
  ...more
});
const UNKNOWN = { empty: 'not known' } as const;
const SOCKETS = ['2.5 mm', '3.5 mm', 'USB', 'own', 'none'] as const;
const HOLDS = ['yes', 'no', 'not known'] as const;
const STABILISER = ['none', 'can be switched off', 'always on', 'not known'] as const;
/** The steps through a device's own menu, a line each. */
const MENU = field('menu', 'steps in its menu, a line each', '', { commands: true });
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
  field('wake_s', 'wakes in', 's', UNKNOWN),
  field('lag_s', 'shutter lag', 's', UNKNOWN),
  field('write_s', 'writes in', 's', UNKNOWN),
  field('buffer_frames', 'buffer', 'frames', UNKNOWN),
  field('interval_floor_s', 'shortest real interval', 's', UNKNOWN),
  field('interval_step_s', 'interval step', 's', UNKNOWN),
  field('sleeps_after_s', 'sleeps after', 's'),
  field('socket', 'socket', '', { choices: SOCKETS }),
  field('holds_exposure', 'holds its exposure', '', { choices: HOLDS }),
  field('holds_white', 'holds its white balance', '', { choices: HOLDS }),
  field('holds_focus', 'holds its focus', '', { choices: HOLDS }),
  field('manual', 'has a manual mode', '', { choices: HOLDS }),
  field('only_f', 'its one aperture', 'f-number', { empty: 'can be changed' }),
  field('slowest_s', 'slowest shutter', 'shutter', UNKNOWN),
  field('raw', 'writes raw files', '', { choices: HOLDS }),
  field('stabiliser', 'stabiliser', '', { choices: STABILISER }),
  field('standby_w', 'draws while it waits', 'W', UNKNOWN),
  field('picture_j', 'a picture takes besides', 'J', UNKNOWN),
  field('warmest_c', 'made for, at most', '°C', { ...UNKNOWN, signed: true }),
  field('after_cut', 'after a power cut it', '', { choices: AFTER_CUT })
];
const CAMERA_JOINT = [
  field('below', 'thread below', '', { choices: THREADS }),
  field('height_mm', 'height', 'mm'),
  field('width_mm', 'width', 'mm'),
  field('hole_mm', 'hole is deep', 'mm', { empty: 'no hole' })
];

const FIELDS: Record<
  Exclude<Kind, 'axis' | 'trigger' | 'coupling' | 'printer' | 'support' | 'filter'>,
  Field[]
> = {
  body: [
    MASS,
    field('focal_mm', 'lens of its own', 'focal', { empty: 'none' }),
    field('focal_to_mm', 'zooms to', 'focal', { empty: 'fixed' }),
    ...IMAGER,
    field('shutter_done', 'shutter has gone', 'times'),
    field('shutter_rated', 'shutter is rated for', 'times', UNKNOWN),
    ...INPUT,
    ...CAMERA_JOINT,
    MENU
  ],
  phone: [
    MASS,
    field('focal_mm', 'focal length', 'focal'),
    field('faces', 'the camera that is used', '', { choices: ['back', 'front'] }),
    ...IMAGER,
    ...PHONE_INPUT,
    ...CAMERA_JOINT,
    MENU
  ],
  'head switch': HEAD_SWITCH,
  panel: PANEL,
  box: BOX,
  cable: CABLE,
  supply: SUPPLY,
  lens: [
    MASS,
    field('focal_mm', 'focal length', 'focal'),
    field('focal_to_mm', 'zooms to', 'focal', { empty: 'fixed' }),
    field('widest_f', 'widest aperture', 'f-number'),
    field('length_mm', 'length', 'mm'),
    field('diameter_mm', 'diameter', 'mm'),
    field('grows_mm', 'grows at most by', 'mm'),
    field('creeps', 'creeps when tilted', '', { tick: true })
  ],
  mount: [
    field('form', 'form', '', { choices: ['plate', 'bush', 'spacer', 'bracket', 'ball head'] }),
    MASS,
    ...JOINT,
    field('offset_mm', 'stands off to the side', 'mm'),
    field('glue', 'glued on', '', { tick: true })
  ],
  battery: [
    field('volts', 'voltage', 'V'),
    field('amp_hours', 'charge', 'Ah'),
    field('usable', 'share that may be used', ''),
    field('gives_a', 'gives to motors', 'A', { empty: 'feeds none' }),
    field('charges_s', 'charges in', 's', UNKNOWN),
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
    field('volts', 'voltage', 'V'),
    field('on_mains', 'runs on the mains', '', { tick: true }),
    MASS
  ]
};

type AxisCard = Extract<KitCard, { kind: 'axis' }>;
type Further = NonNullable<AxisCard['more']>[number];
type DriveField = Field & { where?: readonly string[] | null };

/** What each drive is called, and what is on its card: told by the drives themselves. */
export const DRIVES = drives as unknown as Record<
  string,
  { name: string; minds: string[]; fields: DriveField[]; tables: Table[] }
>;

function driveGroup(card: AxisCard, axis: AxisCard | Further, within: string, title: string): Group {
  const own = card.motion === 'linear' ? 'mm' : 'deg';
  const drive = axis.drive as unknown as Record<string, unknown>;
  const known = DRIVES[axis.drive.kind];
  const on = (one: DriveField): Field => ({
    path: one.path,
    label: one.label,
    unit: one.unit.replace('axis', own),
    ...(one.empty ? { empty: one.empty } : {}),
    ...(one.tick ? { tick: true } : {}),
    ...(one.yes_no?.length ? { yes_no: one.yes_no } : {}),
    ...(one.choices?.length ? { choices: one.choices } : {})
  });
  return {
    title,
    drive: `${within}drive`,
    fields: (known?.fields ?? [])
      .filter(({ where }) => !where || drive[where[0]!] === where[1])
      .map((one) => ({ ...on(one), path: `${within}drive.${one.path}` })),
    tables: (known?.tables ?? []).map((table) => ({
      ...table,
      path: `${within}drive.${table.path}`,
      columns: table.columns.map(on)
    }))
  };
}

/** How far and how fast it goes, as far as its drive has any use for that. */
function reachFields(card: AxisCard, axis: AxisCard | Further, within: string): Field[] {
  const unit = card.motion === 'linear' ? 'mm' : 'deg';
  const minds = DRIVES[axis.drive.kind]?.minds ?? [];
  const limits = [
    field('top_speed', 'top speed', `${unit}/s`, UNKNOWN),
    field('acceleration', 'acceleration', `${unit}/s²`, UNKNOWN),
    field('backlash', 'backlash', unit)
  ].filter(({ path }) => minds.includes(path));
  const turning = [
    field('off_axis_mm', 'load stands off the axis', 'mm'),
    field('shaft_nmm', 'shaft takes', 'N·mm', UNKNOWN)
  ];
  const all = [
    field('low', 'reaches from', unit),
    field('high', 'to', unit),
    ...limits,
    ...(card.motion === 'linear' ? [] : turning)
  ];
  return all.map((one) => ({ ...one, path: `${within}${one.path}` }));
}

const RAIL = [
  field('length_mm', 'rail', 'mm'),
  field('carriage_mm', 'carriage', 'mm'),
  field('carriage_g', 'carriage, mass', 'g'),
  field('end_margin_mm', 'margin at each end', 'mm')
];
const RODS = [
  field('beam.count', 'rods'),
  field('beam.outer_mm', 'rod, outside', 'mm'),
  field('beam.inner_mm', 'rod, inside', 'mm'),
  field('beam.modulus_gpa', 'stiffness', 'GPa'),
  field('beam.density_kg_m3', 'density', 'kg/m³')
];
/** What holds for all axes of a head. */
export const WHOLE = 'the whole of it';
const TURNING = ['pan', 'tilt', 'roll'] as const;
/** What a further axis of a head can be. */
export const turnsLeft = (card: AxisCard) =>
  TURNING.filter((turns) => turns !== card.turns && !card.more?.some((one) => one.turns === turns));

function axisGroups(card: AxisCard): Group[] {
  const linear = card.motion === 'linear';
  const more = card.more ?? [];
  const minds = new Set([card, ...more].flatMap((axis) => DRIVES[axis.drive.kind]?.minds ?? []));
  const first = driveGroup(card, card, '', more.length ? card.turns! : '');
  const moves = [
    field('motion', 'moves', '', { choices: ['linear', 'rotary'] }),
    ...(linear ? [] : [field('turns', 'turns as', '', { choices: more.length ? [...TURNING] : TURNS })])
  ];
  const whole = [
    ...(minds.has('settle_s') ? [field('settle_s', 'settles in', 's', UNKNOWN)] : []),
    ...(minds.has('peak_a') ? [field('peak_a', 'draws at most', 'A', UNKNOWN)] : []),
    MASS,
    ...(linear ? RAIL : []),
    ...(linear && card.beam ? RODS : []),
    ...JOINT,
    field('paced_by', 'one pace with others, set by', '', { words: true }),
    MENU
  ];
  return [
    { ...first, fields: [...first.fields, ...moves, ...reachFields(card, card, '')] },
    ...more.map((axis, n) => {
      const group = driveGroup(card, axis, `more.${n}.`, axis.turns!);
      return { ...group, further: n, fields: [...group.fields, ...reachFields(card, axis, `more.${n}.`)] };
    }),
    { title: more.length ? WHOLE : '', fields: whole, tables: [] }
  ];
}
const TURNS = ['pan', 'tilt', 'roll', 'focus', 'zoom'];

/** What stands on the ground: only a tripod has feet, only a mast has guys, and a table has no thread. */
function supportFields({ form }: Extract<KitCard, { kind: 'support' }>): Field[] {
  const joint = JOINT.filter((one) => !['below', 'hole_mm'].includes(one.path));
  const chosen = field('form', 'form', '', { choices: ['tripod', 'mast', 'clamp', 'table', 'ground'] });
  if (form === 'ground') return [chosen];
  if (form === 'table') return [chosen, field('height_mm', 'height', 'mm')];
  return [
    chosen,
    MASS,
    ...(form === 'tripod' ? [field('feet_radius_mm', 'feet on a circle of radius', 'mm')] : []),
    ...(form === 'mast' ? [field('free_mm', 'stands free above its guys', 'mm', UNKNOWN)] : []),
    ...joint
  ];
}

/** A filter, or a lens that is clipped on in front. */
function filterFields({ effect }: Extract<KitCard, { kind: 'filter' }>): Field[] {
  const effects = ['neutral density', 'polariser', 'graduated', 'clear', 'clip-on lens'];
  return [
    field('effect', 'effect', '', { choices: effects }),
    MASS,
    ...(effect === 'clip-on lens'
      ? [field('factor', 'focal length, times'), field('clear', 'clear of each side', 'share')]
      : [field('stops', 'takes', 'stops'), field('thread_mm', 'thread', 'focal')])
  ];
}

function fieldsOf(card: Exclude<KitCard, { kind: 'axis' }>): Field[] {
  if (card.kind === 'trigger') return [...triggerFields(card), MENU];
  if (card.kind === 'printer') return printerFields(card);
  if (card.kind === 'support') return supportFields(card);
  if (card.kind === 'filter') return filterFields(card);
  return card.kind === 'coupling' ? couplingFields(card) : FIELDS[card.kind];
}

/** All that is on a card, in the order in which a person would tell it. */
export function groupsOf(card: KitCard): Group[] {
  return card.kind === 'axis' ? axisGroups(card) : [{ title: '', fields: fieldsOf(card), tables: [] }];
}

export const SHELVES: { title: string; kinds: Kind[]; tall: number }[] = [
  { title: 'Cameras and lenses', kinds: ['body', 'phone', 'lens', 'filter'], tall: 84 },
  { title: 'What moves', kinds: ['axis'], tall: 62 },
  { title: 'What stands and joins', kinds: ['support', 'mount'], tall: 92 },
  {
    title: 'What fires, feeds and lights',
    kinds: ['trigger', 'coupling', 'cable', 'lamp', 'supply', 'battery', 'card'],
    tall: 64
  },
  { title: 'What stays outside', kinds: ['box', 'panel'], tall: 84 },
  { title: 'Printers', kinds: ['printer', 'head switch'], tall: 84 }
];

/** What a new card can be like, and what that is called. */
export const LIKES = {
  body: 'camera body',
  'camera with its own lens': 'camera with a lens of its own',
  'camera on a board': 'camera on a board of its own',
  phone: 'phone',
  lens: 'lens',
  filter: 'filter',
  axis: 'rail with its drive',
  'turning axis': 'turning axis',
  head: 'head, pan and tilt, with a menu or app',
  spring: 'wind-up timer or turntable',
  'lens motor': 'motor on a lens ring',
  support: 'tripod, mast, clamp or table',
  mount: 'plate, bush or adapter',
  'ball head': 'ball head',
  trigger: 'trigger: remote, timer, controller',
  'timer with hours': 'timer that can be told hours and days',
  switch: 'switch that something presses',
  pin: 'pin of a board',
  coupling: 'optocoupler',
  relay: 'relay',
  resistor: 'resistor for a headset plug',
  cable: 'lead to the camera',
  battery: 'battery',
  supply: 'plug-in supply',
  card: 'memory card',
  lamp: 'lamp',
  printer: 'printer',
  'head switch': 'switch that a print head meets',
  box: 'box for a camera',
  panel: 'solar panel'
} as const;

/** What can be made of each kind of card. */
export const LIKES_OF: Partial<Record<Kind, readonly (keyof typeof LIKES)[]>> = {
  body: ['body', 'camera with its own lens', 'camera on a board'],
  axis: ['axis', 'turning axis', 'head', 'spring', 'lens motor'],
  mount: ['mount', 'ball head'],
  trigger: ['trigger', 'timer with hours', 'switch', 'pin'],
  coupling: ['coupling', 'relay', 'resistor']
};
/** All that can be made of some kinds, or of any. */
export const likesOf = (kinds?: readonly Kind[]): (keyof typeof LIKES)[] =>
  (kinds ?? (Object.keys(KIND_NAMES) as Kind[])).flatMap(
    (kind) => LIKES_OF[kind] ?? [kind as keyof typeof LIKES]
  );

export const KIND_NAMES: Record<Kind, string> = {
  body: 'camera body',
  phone: 'phone',
  lens: 'lens',
  filter: 'filter',
  axis: 'rail or turning axis',
  support: 'support',
  mount: 'plate, bush or adapter',
  trigger: 'trigger',
  coupling: 'coupling',
  cable: 'lead to the camera',
  battery: 'battery',
  supply: 'supply',
  card: 'memory card',
  lamp: 'lamp',
  printer: 'printer',
  'head switch': 'switch that the head meets',
  box: 'box',
  panel: 'solar panel'
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
    case 'supply':
      return { value: card.volts * card.gives_a, unit: 'W', after: '' };
    case 'cable':
      return { value: card.length_mm, unit: 'mm', after: 'long' };
    case 'coupling':
      return card.form === 'resistor' ? { value: card.contact_ohm, unit: 'Ω', after: '' } : null;
    case 'printer':
      return { value: card.high_z_mm, unit: 'mm', after: 'high at most' };
    case 'head switch':
      return card.clicks_mm === null || card.clicks_mm === undefined
        ? null
        : { value: card.clicks_mm, unit: 'lens', after: '' };
    case 'panel':
      return { value: card.watts, unit: 'W', after: 'in full sun' };
    case 'box':
      return { value: card.room_mm, unit: 'mm', after: 'to the glass' };
    case 'mount':
      return null;
  }
}
