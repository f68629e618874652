/** What takes a snag away and is no change of the plan: begun from wherever the snag is shown. */
import { api, got } from '../api/client';
import { router } from '../router.svelte';
import type { Sheet } from '../sheet/sheet.svelte';
import { busy } from './prints.svelte';

interface Begun {
  label: string;
  consequence: string;
  begin: (sheet: Sheet) => Promise<void>;
}

/** Write the changed file and prove it, and show how that goes; where the file is not here, that page says so. */
async function prove(sheet: Sheet): Promise<void> {
  await sheet.rested();
  const { plan } = sheet;
  const digest = plan.printing?.file?.digest;
  const prints = got(await api.GET('/api/prints'));
  const same = prints.filter((one) => one.state === 'read' && one.digest === digest);
  // Of two with the very same bytes the shoot's own is the one that its page shows.
  const print = same.find((one) => one.shoot_id === sheet.id) ?? same[0];
  if (print && !busy(print)) {
    const params = { path: { print_id: print.id } };
    got(await api.POST('/api/prints/{print_id}/work', { params, body: { kind: 'change', plan } }));
  }
  router.go(`/shoots/${sheet.id}/print/file`);
  sheet.worked += 1;
}

export const WORKS: Record<string, Begun> = {
  prove: {
    label: 'Write it and prove it',
    consequence: 'The stops go into a copy, and a virtual printer runs it beside the original.',
    begin: prove
  }
};
