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
  const KINDS = { printer: 'printer', switch: 'head switch' } as const;
  /** What of it lies on the shelf: one of them is taken by whoever says so, and by nobody else. */
  const lying = (one: keyof typeof KINDS) =>
    (shelf.cards ?? []).filter((line) => line.card.kind === KINDS[one]).slice(0, 4);
  $effect(() => {
    if (missing.some((one) => one in KINDS) && shelf.cards === null) void shelf.look();
  });
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
          {:else if one === 'printer' || one === 'switch'}
            {one === 'printer' ? 'Which printer it is printed on.' : 'Which switch its head meets.'}
            {#each lying(one) as line (line.id)}
              <button type="button" class="act small" onclick={() => void shelf.putOn([line])}
                >{line.card.name}</button
              >
            {/each}
            <button type="button" class="link" onclick={choose}
              >{lying(one).length ? 'another, or a new card' : 'Make its card'}</button
            >
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
