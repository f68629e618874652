<script lang="ts">
  /** A scheduled shoot: its rules, the calendar of what they cover. */
  import chapter from '.';
  import { number } from '../../format';
  import ChapterPage from '../../parts/ChapterPage.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import AimAndView from './AimAndView.svelte';
  import Box from './Box.svelte';
  import Controller from './Controller.svelte';
  import PowerAndCard from './PowerAndCard.svelte';
  import Visits from './Visits.svelte';
  import When from './When.svelte';

  const sheet = theSheet();
  const season = $derived(sheet.evaluation.season);
  const days = $derived(sheet.figure('season.days'));
  const title = $derived(
    season.scheduled
      ? `${number(sheet.quantity('frames')?.value ?? 0, 9)} frames on ${number(days?.value ?? 0)} days`
      : 'One interval, day and night'
  );
  const beside = $derived(
    season.scheduled && season.rules?.length === 1 ? (season.rules[0]?.said ?? '') : ''
  );
</script>

<ChapterPage {chapter} {title} {beside}>
  {#if sheet.leaf === 'when' || !sheet.leaf}<When />
  {:else if !season.long}
    <p class="mono-note">How long it goes on is open: what fills up and runs out is told once it is known.</p>
  {:else if sheet.leaf === 'controller'}<Controller />
  {:else if sheet.leaf === 'power'}<PowerAndCard />
  {:else if sheet.leaf === 'box'}<Box />
  {:else if sheet.leaf === 'aim'}<AimAndView />
  {:else}<Visits />{/if}
</ChapterPage>
