<script lang="ts">
  /** What each drive is told, the program and tables to take along, and the limits of the axes. */
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Limits from './Limits.svelte';
  import MarksToSet from './MarksToSet.svelte';
  import Program from './Program.svelte';
  import ToSet from './ToSet.svelte';

  const sheet = theSheet();
  const rig = new JogRig(sheet);
  const axes = $derived(sheet.plan.rig.axes);
  const drives = $derived(sheet.evaluation.drives);
  const programmed = $derived(sheet.evaluation.programmed);
  /** What has a section of its own further down is not told twice. */
  const listed = $derived(
    axes.filter(({ name }) => !sheet.evaluation.review.sheets.some(({ about }) => about === name))
  );
  const marked = $derived(sheet.evaluation.marked);
</script>

<div class="leaf grid grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-[30px] max-narrow:grid-cols-1">
  <section>
    {#if !axes.length}<p class="mono-note">Nothing moves on this rig.</p>{/if}
    {#if listed.length}
      <h3>What the drives are told</h3>
      <Rows ruled>
        {#each listed as { name } (name)}
          {@const drive = drives.find((each) => each.axis === name)}
          <Row label={name}
            >{drive
              ? `${drive.drive}: ${drive.words}`
              : 'no card in the rig says what drives it; it is told its positions'}</Row
          >
        {/each}
      </Rows>
    {/if}
    <ToSet />
    {#if programmed.length}<Program {rig} />{/if}
    {#if marked.length}<MarksToSet axes={marked} />{/if}
  </section>
  <section>
    {#if axes.length}<Limits />{/if}
  </section>
</div>
