<script lang="ts">
  /** The finder under a weather that the plan does not count on: a ramp that goes wrong is seen before it is shot. */
  import { onDestroy } from 'svelte';
  import { api } from '../../api/client';
  import { number } from '../../format';
  import { at } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { WEATHERS, type Weather } from '../../sheet/weather';

  const sheet = theSheet();
  const SOON_MS = 150;
  let weather = $state<Weather>('as planned');
  let metered = $state.raw<Parameters<typeof at>[0]>();

  $effect(() => {
    const [plan, asked] = [sheet.plan, weather];
    if (asked === 'as planned') {
      sheet.weathered = null;
      return;
    }
    const soon = setTimeout(async () => {
      const answer = await api.POST('/api/weather', { body: { plan, weather: asked } }).catch(() => null);
      if (sheet.plan !== plan || weather !== asked) return;
      sheet.weathered = answer?.data?.bright ?? null;
      metered = answer?.data?.metered_ev;
    }, SOON_MS);
    return () => clearTimeout(soon);
  });
  onDestroy(() => (sheet.weathered = null));
</script>

<p class="label weather">
  <label
    >seen under <select bind:value={weather} aria-label="Weather in the finder">
      {#each WEATHERS as one (one)}<option>{one}</option>{/each}
    </select></label
  >
  {#if sheet.weathered}
    meter {number(at(metered, sheet.playhead.at), 3)} EV, {number(
      Math.abs(at(sheet.weathered, sheet.playhead.at)),
      2
    )} stops {at(sheet.weathered, sheet.playhead.at) < 0 ? 'too dark' : 'too bright'}
  {/if}
</p>

<style>
  .weather {
    margin-top: 4px;
  }
  select {
    border-bottom: 1px solid var(--ink);
  }
</style>
