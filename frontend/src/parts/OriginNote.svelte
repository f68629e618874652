<script lang="ts">
  /** Where a figure of the plan comes from, and the way back to what its card says. */
  import { date, write } from '../format';
  import { theSheet } from '../sheet/sheet.svelte';

  interface Props {
    path: string;
    unit: string;
  }
  let { path, unit }: Props = $props();

  const sheet = theSheet();
  const origin = $derived(sheet.evaluation.origins[path]);
  const said = $derived(origin?.card_value == null ? '' : write(origin.card_value, unit, sheet.zone));

  function back() {
    if (origin?.card_value == null) return;
    const exact = /^(clip|beat)\.[a-z_]+_s$/.test(path);
    void sheet.set(path, exact ? String(origin.card_value) : origin.card_value);
  }
</script>

{#if origin}
  <p class="origin" data-how={origin.how}>
    {#if origin.how === 'measured'}
      Measured{origin.on ? ` on ${date(origin.on)}` : ''}, ± {write(
        origin.spread ?? 0,
        unit,
        sheet.zone
      )}{origin.count ? ` over ${origin.count} readings` : ''}; on the card “{origin.card}”.
    {:else if origin.how === 'card'}
      From the card “{origin.card}”, where it was typed.
    {:else if origin.how === 'typed' && origin.card}
      Typed here. The card “{origin.card}” says {said}.
      <button type="button" class="link" onclick={back}>Back to the card</button>
    {:else if origin.how === 'typed'}
      Typed here.
    {:else}
      The usual value; nobody has said better. Type your own, or measure it on a kit card.
    {/if}
  </p>
{/if}

<style>
  .origin {
    font-size: 13px;
    color: var(--second);
  }
  [data-how='measured'] {
    color: var(--ink);
  }
</style>
