/** The shoot's own file on the bench, followed as long as its sheet is open, whichever chapter lies open. */
import { getContext, onMount, setContext } from 'svelte';
import type { Sheet } from '../sheet/sheet.svelte';
import { Prints } from './prints.svelte';

class OwnPrint {
  readonly prints = new Prints();
  readonly #sheet: Sheet;
  /** The shoot's own file; or, where the shoot was duplicated, the file that its layers were read of. */
  readonly print = $derived.by(() => {
    const { all } = this.prints;
    const digest = this.#sheet.plan.printing?.file?.digest;
    return (
      all?.find((one) => one.shoot_id === this.#sheet.id) ??
      all?.find((one) => !!one.digest && one.digest === digest)
    );
  });
  readonly #change = $derived(
    this.print?.works.find((work) => work.kind === 'change' && work.state !== 'stopped')
  );
  /** Which proof of this very plan the sheet has not heard of yet; empty where it has. */
  readonly unheard = $derived.by(() => {
    const { of, proof } = this.#sheet.evaluation.printing;
    const change = this.#change;
    return change?.result && change.of === of && proof !== change.result.stands ? `${change.id} ${of}` : '';
  });

  constructor(sheet: Sheet) {
    this.#sheet = sheet;
  }
}

const KEY = Symbol('own print');

/** Follow the bench for a sheet: what it proves is asked for once it is there. */
export function followPrint(sheet: Sheet): void {
  const own = new OwnPrint(sheet);
  setContext(KEY, own);
  const calls = $derived(sheet.chapter === 'print' || !!sheet.plan.printing?.file);
  // What was begun from a snag shows at once.
  $effect(() => {
    void sheet.worked;
    if (calls) void own.prints.look();
  });
  let asked = '';
  $effect(() => {
    if (!own.unheard || asked === own.unheard) return;
    asked = own.unheard;
    sheet.lookAgain();
  });
  onMount(() => () => own.prints.close());
}

export function ownPrint(): OwnPrint {
  return getContext<OwnPrint>(KEY);
}
