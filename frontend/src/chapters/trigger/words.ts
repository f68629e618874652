/** What the chapter calls things. */
import type { Evaluation } from '../../api/client';

type Verdict = NonNullable<Evaluation['trigger']['verdict']>;

export const VERDICTS: Record<Verdict, string> = {
  '': 'Called without a wire: no contact of the camera is pressed',
  takes: 'Each press takes a frame',
  'not known': 'Something has to be read off first',
  nothing: 'The camera hears nothing',
  'focus alone': 'It focuses, and takes no frame',
  held: 'The shutter is held down',
  early: 'It fires at the half press',
  'half press missing': 'The half press is missing',
  'no key': 'The phone hears no button of a headset',
  'wrong key': 'The phone hears another key',
  restless: 'The chain never comes to rest'
};

const PARTS: Record<string, string> = {
  source: '',
  coupling: 'coupling, ',
  resistor: 'resistor, ',
  camera: 'camera, '
};

type Named = readonly { name: string; role?: string | null }[];

/** An end as the drawing calls it, with its part: a wire of a cut lead by its name, a contact of a switch with its own. */
export function endName(
  end: string,
  labels: ReadonlyMap<string, string>,
  wires: Named = [],
  contacts: Named = []
): string {
  const [part = '', name = ''] = end.split('.');
  if (part === 'wire') return `wire “${wires[Number(name)]?.name ?? name}”`;
  const said = labels.get(end) ?? name;
  const own = part === 'source' ? contacts.find(({ role }) => role === said)?.name : undefined;
  return `${PARTS[part] ?? ''}${said}${own ? ` (${own})` : ''}`;
}
