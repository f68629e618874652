<script lang="ts">
  /** What lights the scene, and what the camera is set to: the fall of the light, and the changes one by one. */
  import chapter from '.';
  import { duration, number } from '../../format';
  import ChapterPage from '../../parts/ChapterPage.svelte';
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

<ChapterPage {chapter} {title}>
  {#if sheet.leaf === 'changes'}<Changes />
  {:else if sheet.leaf === 'sky'}<Sky />
  {:else if sheet.leaf === 'beside'}<Helpers />
  {:else}<Fall />{/if}
</ChapterPage>
