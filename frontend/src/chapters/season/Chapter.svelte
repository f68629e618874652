<script lang="ts">
  /** A scheduled shoot: its rules, the calendar of what they cover. */
  import chapter from '.';
  import { number } from '../../format';
  import ChapterPage from '../../parts/ChapterPage.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import When from './When.svelte';

  const sheet = theSheet();
  const season = $derived(sheet.evaluation.season);
  const days = $derived(sheet.figure('season.days'));
  const title = $derived(
    season.scheduled
      ? `${number(sheet.evaluation.frames ?? 0, 9)} frames on ${number(days?.value ?? 0)} days`
      : 'One interval, day and night'
  );
  const beside = $derived(
    season.scheduled && season.rules?.length === 1 ? (season.rules[0]?.said ?? '') : ''
  );
</script>

<ChapterPage {chapter} {title} {beside}>
  <When />
</ChapterPage>
