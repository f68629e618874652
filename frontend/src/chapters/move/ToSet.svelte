<script lang="ts">
  /** What is set by hand before the first frame on drives that take no program: settings, starts, alarms. */
  import { write } from '../../format';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const axes = $derived<string[]>(sheet.plan.rig.axes.map(({ name }) => name));
  /** Those of the card that are about a drive, or about which clock is started first. */
  const sections = $derived(
    sheet.evaluation.review.sheets.filter(
      ({ about }) => about && (about === 'clocks' || axes.includes(about))
    )
  );
</script>

{#each sections as section (section.title)}
  <h3>{section.title}</h3>
  <Rows>
    {#each section.settings as { label, value, figure }, n (n)}
      <Row {label}>
        {#if figure && sheet.figure(figure)}<Working {figure} />
        {:else}{typeof value.value === 'string'
            ? value.value
            : write(value.value, value.unit, sheet.zone)}{/if}
      </Row>
    {/each}
  </Rows>
{/each}
{#if sections.length}<p class="label">The same stands on the field card.</p>{/if}
