<script lang="ts">
  /** A layered shoot: the bed and the core of the print, the stop, the file and its proof, how it grows. */
  import chapter from '.';
  import { ownPrint } from '../../bench/own.svelte';
  import { pathsOf, type Paths } from '../../bench/paths.svelte';
  import { duration, number } from '../../format';
  import ChapterPage from '../../parts/ChapterPage.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import FileAndProof from './FileAndProof.svelte';
  import FindTheClick from './FindTheClick.svelte';
  import Growth from './Growth.svelte';
  import TheBed from './TheBed.svelte';
  import TheStop from './TheStop.svelte';

  const sheet = theSheet();
  const own = ownPrint();
  const { prints } = own;
  const printing = $derived(sheet.evaluation.printing);
  const print = $derived(own.print);
  let paths = $state.raw<Paths>();
  $effect(() => {
    if (print?.state === 'read' && print.layers)
      void pathsOf(print.id).then(
        (found) => (paths = found),
        () => (paths = undefined)
      );
  });
  const chosen = $derived(printing.chosen ?? []);
  /** The layer at the playhead. */
  const at = $derived(chosen[sheet.playhead.at] ?? 1);
  function onat(layer: number) {
    // Upwards to the next layer that calls a frame, downwards to the one before.
    const above = chosen.findIndex((one) => one >= layer);
    const below = (above < 0 ? chosen.length : above) - (chosen[above] === layer ? 0 : 1);
    const best = layer > at ? (above < 0 ? chosen.length - 1 : above) : Math.max(0, below);
    sheet.playhead.stop();
    sheet.playhead.to(best);
  }
  const PROOFS = {
    proven: 'proven',
    incomplete: 'its proof is incomplete',
    said: 'said to be proven, not proven here',
    failed: 'its proof failed',
    older: 'proven once, and changed since',
    none: 'not proven yet'
  } as const;
  const title = $derived.by(() => {
    if (!printing.layered) return 'No print calls the frames yet';
    const count = chosen.length;
    return `${number(count)} ${count === 1 ? 'frame' : 'frames'} of ${number(printing.layers ?? 0)} layers`;
  });
  const beside = $derived.by(() => {
    if (!printing.layered) return '';
    const whole = sheet.figure('printing.print');
    const stop = printing.stop_s
      ? `a stop takes ${duration(Math.round((printing.stop_s ?? 0) * 10) / 10)}`
      : '';
    const took = whole ? `about ${duration(Math.round(whole.value / 60) * 60)} in all` : '';
    const stands = printing.proof ?? 'none';
    const stopped = sheet.evaluation.snags.some((one) => one.severity === 'stop' && one.chapter === 'print');
    const told = stopped && stands === 'proven' ? 'proven in itself, but see the stop' : PROOFS[stands];
    const proof = sheet.plan.printing?.file ? told : '';
    return [stop, took, proof].filter(Boolean).join(', ');
  });
</script>

<ChapterPage {chapter} {title} {beside}>
  {#if sheet.leaf === 'stop'}<TheStop {paths} {at} />
  {:else if sheet.leaf === 'file'}<FileAndProof {prints} {print} />
  {:else if sheet.leaf === 'growth'}<Growth {paths} />
  {:else if sheet.leaf === 'click'}<FindTheClick />
  {:else}<TheBed {prints} {print} {paths} {at} {onat} />{/if}
</ChapterPage>
