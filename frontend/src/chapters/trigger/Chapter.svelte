<script lang="ts">
  /** Who tells the camera, and whether it hears: the chain, its wires, the lamps beside it, the bench. */
  import chapter from '.';
  import Leaves from '../../parts/Leaves.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Afar from './Afar.svelte';
  import Bench from './Bench.svelte';
  import Lamps from './Lamps.svelte';
  import TheChain from './TheChain.svelte';
  import Wires from './Wires.svelte';
  import { VERDICTS } from './words';

  const sheet = theSheet();
  const trigger = $derived(sheet.evaluation.trigger);
  const title = $derived.by(() => {
    if (!sheet.evaluation.frames) return 'The chain is told once frames and interval are known';
    if (!trigger.source) return 'Nothing is chosen yet that tells the camera';
    return VERDICTS[trigger.verdict ?? ''] ?? 'Called without a wire: no contact of the camera is pressed';
  });
  /** What the camera hears, where that is known. */
  const heard = $derived.by(() => {
    const [rest, half, full] = trigger.seen ?? [];
    if (!full || trigger.verdict === 'not known') return '';
    const held = rest === 'nothing' ? '' : `at rest ${rest}, `;
    return `It hears ${held}${half === rest ? '' : `at half press ${half}, `}at full press ${full}.`;
  });
</script>

<section class="trigger">
  <header>
    <h2>{title} <span class="label">{heard}</span></h2>
    <Leaves
      label="Parts of the trigger"
      at="/shoots/{sheet.id}/trigger"
      leaves={chapter.leaves}
      open={sheet.leaf}
    />
  </header>
  {#if sheet.leaf === 'wires'}<Wires />
  {:else if sheet.leaf === 'lamps'}<Lamps />
  {:else if sheet.leaf === 'bench'}<Bench />
  {:else if sheet.leaf === 'afar'}<Afar />
  {:else}<TheChain />{/if}
</section>

<style>
  .trigger {
    padding: 10px 22px 12px 26px;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    justify-content: space-between;
    gap: 0 24px;
    margin-bottom: 8px;
  }
  @media (max-width: 1000px) {
    .trigger {
      padding: 14px 16px;
    }
  }
</style>
