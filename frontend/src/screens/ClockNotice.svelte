<script lang="ts">
  /** The clock is far from where it was: said once, since what is old by it alone is not cleared. */
  import { onMount } from 'svelte';
  import { api } from '../api/client';
  import type { components } from '../api/schema';
  import { clock, day, number } from '../format';
  import { ownZone } from '../time';

  let jumped = $state.raw<components['schemas']['Jumped'] | null>(null);

  onMount(async () => {
    jumped = (await api.GET('/api/house').catch(() => null))?.data?.jumped ?? null;
  });

  async function read() {
    const answer = await api.POST('/api/house/clock-read').catch(() => null);
    if (answer?.data) jumped = answer.data.jumped;
  }

  const at = (moment: string) => {
    const seconds = Date.parse(moment) / 1000;
    return `${day(seconds, ownZone(), true)}, ${clock(seconds, ownZone(), false)}`;
  };
</script>

{#if jumped && !jumped.read}
  <p class="clock" role="status">
    <b>The clock has jumped.</b> Bridle last saw {at(jumped.from)}; then the clock said {at(jumped.to)}. If it
    is wrong, set it right. Nothing from before is cleared from the bin or from the earlier versions until
    Bridle has run for another {number(Math.ceil(jumped.left_s / 3600))} h.
    <button type="button" class="link" onclick={() => void read()}>All right</button>
  </p>
{/if}

<style>
  .clock {
    margin-top: 18px;
    max-width: 90ch;
    border-left: 6px solid var(--mind);
    padding-left: 12px;
  }
</style>
