<script lang="ts">
  /** Where the camera goes and what it sees: framing, marks, the picture, rounds, and what the drives are told. */
  import chapter from '.';
  import Leaves from '../../parts/Leaves.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Again from './Again.svelte';
  import Drives from './Drives.svelte';
  import Framing from './Framing.svelte';
  import Marks from './Marks.svelte';
  import ThePicture from './ThePicture.svelte';

  const sheet = theSheet();
  const COUNT = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'];
  const keys = $derived(sheet.plan.move.keyframes.length);
  const title = $derived.by(() => {
    const names = sheet.plan.rig.axes.map((axis) => axis.name);
    if (!names.length) return sheet.plan.move.post ? 'A still camera, a crop that moves' : 'Nothing moves';
    return `${COUNT[keys] ?? keys} keyframes, ${names.join(', ').replace(/, (?=[^,]*$)/, ' and ')}`;
  });
</script>

<section class="move">
  <header>
    <h2>{title}</h2>
    <Leaves
      label="Parts of the move"
      at="/shoots/{sheet.id}/move"
      leaves={chapter.leaves}
      open={sheet.leaf}
    />
  </header>
  {#if sheet.leaf === 'marks'}<Marks />
  {:else if sheet.leaf === 'picture'}<ThePicture />
  {:else if sheet.leaf === 'again'}<Again />
  {:else if sheet.leaf === 'drives'}<Drives />
  {:else}<Framing />{/if}
</section>

<style>
  .move {
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
    .move {
      padding: 14px 16px;
    }
  }
</style>
