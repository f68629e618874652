<script lang="ts">
  /** There and back, several places in each cycle, the same positions again, and the same path run live. */
  import { number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Live from './Live.svelte';
  import Passes from './Passes.svelte';
  import Round from './Round.svelte';

  const sheet = theSheet();
  const legs = $derived(sheet.plan.move.legs);
  const pictures = $derived(sheet.evaluation.view?.visits ?? 1);
  const WAYS = [
    { ways: 1, label: 'there once' },
    { ways: 2, label: 'there and back' }
  ];
</script>

<div class="leaf grid grid-cols-2 gap-[30px] max-narrow:grid-cols-1">
  <section>
    <h3>There and back</h3>
    <p>
      Goes the way <Editable path="move.legs" label="how often it goes the way" unit="" min={1} />
      {legs === 1
        ? 'time: there.'
        : legs === 2
          ? 'times: there and back, with ease at the turn.'
          : 'times, there and back in turn, with ease at each turn.'}
    </p>
    <p class="acts">
      {#each WAYS as { ways, label } (ways)}
        <button
          type="button"
          class="link"
          disabled={legs === ways}
          onclick={() => sheet.put('move.legs', ways)}>{label}</button
        >
      {/each}
    </p>
    <p class="mono-note">
      Where a drive turns back, its backlash is taken up in the still time, before the shutter opens.
    </p>
    <Round />
  </section>
  <section>
    <Passes />
    <Live />
    <p class="mono-note mt-3">
      {number(pictures, 12)}
      {pictures === 1 ? 'picture' : 'pictures'} in each cycle now.
    </p>
  </section>
</div>
