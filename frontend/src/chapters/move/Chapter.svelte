<script lang="ts">
  /** Where the camera goes and what it sees: framing, marks, the picture, rounds, and what the drives are told. */
  import chapter from '.';
  import ChapterPage from '../../parts/ChapterPage.svelte';
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

<ChapterPage {chapter} {title}>
  {#if sheet.leaf === 'marks'}<Marks />
  {:else if sheet.leaf === 'picture'}<ThePicture />
  {:else if sheet.leaf === 'again'}<Again />
  {:else if sheet.leaf === 'drives'}<Drives />
  {:else}<Framing />{/if}
</ChapterPage>
