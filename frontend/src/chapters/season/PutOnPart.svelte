<script lang="ts">
  /** A card of some kinds is taken from the shelf. */
  import type { KitCard } from '../../api/client';
  import PutOn from '../../kit/PutOn.svelte';
  import { RigShelf } from '../../kit/shelf.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    kinds: readonly KitCard['kind'][];
    label: string;
  }
  let { kinds, label }: Props = $props();
  const shelf = new RigShelf(theSheet());
  let putting = $state(false);
  function choose() {
    putting = true;
    void shelf.look();
  }
</script>

<button type="button" class="link" onclick={choose}>{label}</button>
<PutOn {shelf} bind:open={putting} title="Take it from the shelf" {kinds} />

<style>
  button.link {
    min-height: 24px;
    padding: 2px 0;
  }
</style>
