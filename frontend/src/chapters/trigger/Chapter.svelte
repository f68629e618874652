<script lang="ts">
  /** Who tells the camera, and whether it hears: the chain, its wires, the lamps beside it, the bench. */
  import chapter from '.';
  import ChapterPage from '../../parts/ChapterPage.svelte';
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
    return VERDICTS[trigger.verdict ?? ''];
  });
  /** What the camera hears, where that is known. */
  const heard = $derived.by(() => {
    const [rest, half, full] = trigger.seen ?? [];
    if (!full || trigger.verdict === 'not known') return '';
    const held = rest === 'nothing' ? '' : `at rest ${rest}, `;
    return `It hears ${held}${half === rest ? '' : `at half press ${half}, `}at full press ${full}.`;
  });
</script>

<ChapterPage {chapter} {title} beside={heard}>
  {#if sheet.leaf === 'wires'}<Wires />
  {:else if sheet.leaf === 'lamps'}<Lamps />
  {:else if sheet.leaf === 'bench'}<Bench />
  {:else if sheet.leaf === 'afar'}<Afar />
  {:else}<TheChain />{/if}
</ChapterPage>
