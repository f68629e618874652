<script lang="ts">
  /** What each drive is told, the program and tables to take along, jogging and capturing, and the limits of the axes. */
  import { onMount } from 'svelte';
  import { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Jog from './Jog.svelte';
  import Limits from './Limits.svelte';
  import MarksToSet from './MarksToSet.svelte';
  import Program from './Program.svelte';
  import ToSet from './ToSet.svelte';

  const sheet = theSheet();
  const rig = new JogRig(sheet);
  onMount(() => void rig.look());
  const axes = $derived(sheet.plan.rig.axes);
  const drives = $derived(sheet.evaluation.drives);
  const programmed = $derived(sheet.evaluation.programmed);
  const marked = $derived(sheet.evaluation.marked);
</script>

<div class="leaf grid grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-[30px] max-narrow:grid-cols-1">
  <section>
    <h3>What the drives are told</h3>
    <table>
      <tbody>
        {#each axes as axis (axis.name)}
          {@const drive = drives.find((each) => each.axis === axis.name)}
          <tr>
            <th scope="row">{axis.name}</th>
            <td
              >{drive
                ? `${drive.drive}: ${drive.words}`
                : 'no card in the rig says what drives it; it is told its positions'}</td
            >
          </tr>
        {:else}
          <tr><td>Nothing moves on this rig.</td></tr>
        {/each}
      </tbody>
    </table>
    <ToSet />
    {#if programmed.length}<Program {rig} />{/if}
    {#if marked.length}<MarksToSet axes={marked} />{/if}
  </section>
  <section>
    {#if programmed.length}<Jog {rig} />{/if}
    {#if axes.length}<Limits />{/if}
  </section>
</div>
