<script lang="ts">
  /** What has to be told before a stop can be written, in its order, each with the way to tell it. */
  import PutOn from '../../kit/PutOn.svelte';
  import { RigShelf } from '../../kit/shelf.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const shelf = new RigShelf(sheet);
  let putting = $state(false);
  const missing = $derived(sheet.evaluation.printing.missing ?? []);
  function choose() {
    putting = true;
    void shelf.look();
  }
</script>

{#if missing.length}
  <section aria-label="What is still to be told">
    <h3>Still to be told</h3>
    <ol>
      {#each missing as one (one)}
        <li>
          {#if one === 'file'}The file.
            <a class="link" href="/shoots/{sheet.id}/print/file" onclick={router.follow}>Put it in</a>
          {:else if one === 'printer'}The printer: its limits, its head.
            <button type="button" class="link" onclick={choose}>Take its card</button>
          {:else if one === 'switch'}The switch that the head meets.
            <button type="button" class="link" onclick={choose}>Take its card</button>
          {:else}At which coordinate the switch clicks.
            <a class="link" href="/shoots/{sheet.id}/print/click" onclick={router.follow}>Find it</a>
          {/if}
        </li>
      {/each}
    </ol>
  </section>
{/if}
<PutOn {shelf} bind:open={putting} title="Take a printer or a switch" kinds={['printer', 'head switch']} />

<style>
  section {
    border-left: 3px solid var(--ink);
    padding-left: 12px;
    margin-bottom: 10px;
  }
  ol {
    list-style: decimal;
    padding-left: 20px;
  }
</style>
