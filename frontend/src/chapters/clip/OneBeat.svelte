<script lang="ts">
  /** One beat: what it holds, part by part, and both schools of moving side by side. */
  import BeatStrip from '../../drawings/strip/BeatStrip.svelte';
  import { number } from '../../format';
  import Working from '../../parts/Working.svelte';
  import { changing } from '../../sheet/frames';
  import { theSheet } from '../../sheet/sheet.svelte';
  import BeatParts from './BeatParts.svelte';
  import Exposures from './Exposures.svelte';
  import Schools from './Schools.svelte';
  import Storing from './Storing.svelte';

  const sheet = theSheet();
  const beat = $derived(sheet.evaluation.beat);
</script>

<h3>
  What one beat holds
  <span class="label ml-3.5 font-[450]">
    shortest interval that fits <Working figure="beat.shortest" />
    {#if beat && changing(sheet.plan).segments.length}· tightest at frame {number(beat.frame + 1, 12)}{/if}
  </span>
</h3>
{#if beat}<BeatStrip {beat} />{/if}
<BeatParts />
<div
  class="mt-2 grid grid-cols-2 gap-[30px] border-t border-hair pt-2 text-[13px] max-phone:grid-cols-1 max-phone:gap-2.5"
>
  <Exposures />
  <Storing />
</div>
{#if sheet.evaluation.schools.length}<Schools />{/if}
