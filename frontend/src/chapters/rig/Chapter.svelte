<script lang="ts">
  /** The rig: put together from ground to camera out of kit cards, drawn from the side, and checked. */
  import { onMount } from 'svelte';
  import RigDrawing from '../../drawings/rig/RigDrawing.svelte';
  import { listed, say } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Chain from './Chain.svelte';
  import DrivesAndSnags from './DrivesAndSnags.svelte';
  import PutOn from '../../kit/PutOn.svelte';
  import { RigShelf } from '../../kit/shelf.svelte';
  import Standing from './Standing.svelte';

  const sheet = theSheet();
  const shelf = new RigShelf(sheet);
  const rig = $derived(sheet.evaluation.rig);
  const copies = $derived(sheet.plan.kit.copies);
  const total = $derived(copies.reduce((sum, copy) => sum + (copy.card.mass_g ?? 0), 0));
  let adding = $state(false);
  let chosen = $state<number | null>(null);

  onMount(() => void shelf.look());
  // Asked again whenever the copies change: an update taken makes its offer go away.
  $effect(() => void shelf.compare(sheet.plan));
  const choose = (index: number) => (chosen = chosen === index ? null : index);
</script>

<section class="leaf px-[30px] pt-[18px] pb-3.5 max-phone:order-3 max-phone:px-4">
  <header class="flex flex-wrap items-baseline gap-x-3.5 gap-y-1 text-sm">
    <h2 class="text-base">{rig ? 'From the ground to the camera' : 'No rig yet'}</h2>
    <p class="label">
      {#if rig}Seen from the side, to scale. {copies.length}
        {copies.length === 1 ? 'card' : 'cards'}, {say(total, 'g')} to carry.
      {:else}Put it together out of what you own; the plan takes its figures over.{/if}
    </p>
    <button type="button" class="act small ml-auto" onclick={() => (adding = true)}>Put something on</button>
  </header>
  {#if shelf.trouble}<p role="alert">{shelf.trouble}</p>{/if}

  {#each shelf.changed as change (change.key)}
    <div class="my-2 flex items-center justify-between gap-4 border-l-3 border-ink py-1 pl-3" role="status">
      <p>
        <b>{change.name}</b> has changed on the shelf since: {change.differences.join('; ')}.
        {#each change.effects as effect, i (i)}<span>{effect} </span>{:else}<span
            >The plan comes out the same.</span
          >{/each}
      </p>
      <button type="button" class="act quiet" onclick={() => shelf.takeOver(change)}>Take it over</button>
    </div>
  {/each}

  {#if rig && sheet.evaluation.lacks.length}
    <p class="py-1">
      Still without {listed(sheet.evaluation.lacks)}.
      <button
        type="button"
        class="act quiet small"
        disabled={shelf.making}
        onclick={() => void shelf.usual(sheet.evaluation.lacks)}>Make the usual cards for it</button
      >
    </p>
  {/if}
  {#if rig}<RigDrawing {rig} {chosen} onchoose={choose} />{:else}<PutOn {shelf} />{/if}

  <div
    class="mt-2 grid grid-cols-[1.25fr_1fr_1.25fr] gap-[30px] border-t border-ink pt-2 max-narrow:grid-cols-1"
  >
    <Chain {chosen} onchoose={choose} onoff={() => (chosen = null)} />
    <Standing />
    <DrivesAndSnags />
  </div>
</section>
<PutOn {shelf} bind:open={adding} />

<style>
  /* The columns under the drawing have one rule over all of them. */
  .leaf :global(h3) {
    border-top: 0;
    padding-top: 0;
    margin: 0;
  }
</style>
