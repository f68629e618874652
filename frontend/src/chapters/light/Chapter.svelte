<script lang="ts">
  /** What lights the scene, and what the camera is set to: the fall of the light, and the changes one by one. */
  import chapter from '.';
  import { duration, number } from '../../format';
  import Leaves from '../../parts/Leaves.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Changes from './Changes.svelte';
  import Fall from './Fall.svelte';
  import Helpers from './Helpers.svelte';
  import Sky from './Sky.svelte';

  const sheet = theSheet();
  const light = $derived(sheet.evaluation.light);
  const title = $derived.by(() => {
    const here = light.schools?.find((school) => school.here);
    if (light.missing?.includes('daylight')) return 'Daylight is kept out';
    if (light.missing?.length) return 'The light is not known yet';
    if (!here || here.school === 'locked') return 'Locked: one exposure for all frames';
    if (here.school === 'automatic') return 'Automatic: the camera exposes each frame by itself';
    const gap = sheet.figure('light.gap')?.value;
    const count = `${number(here.changes, 6)} ${here.changes === 1 ? 'change' : 'changes'}`;
    return `Ramped: ${count}${gap ? `, the closest ${duration(gap)} apart` : ''}`;
  });
</script>

<section class="light">
  <header>
    <h2>{title}</h2>
    <Leaves
      label="Parts of the light"
      at="/shoots/{sheet.id}/light"
      leaves={chapter.leaves}
      open={sheet.leaf}
    />
  </header>
  {#if sheet.leaf === 'changes'}<Changes />
  {:else if sheet.leaf === 'sky'}<Sky />
  {:else if sheet.leaf === 'beside'}<Helpers />
  {:else}<Fall />{/if}
</section>

<style>
  .light {
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
    .light {
      padding: 14px 16px;
    }
  }
</style>
