<script lang="ts">
  /** What other windows could not save before they were closed: saved by itself, or told where there are two versions. */
  import { onMount } from 'svelte';
  import { router } from '../router.svelte';
  import { saveLeftovers, type Unsaved } from '../sheet/unsaved';

  const AGAIN_MS = 4000;
  let two = $state.raw<Unsaved[]>([]);
  let timer = 0;

  onMount(() => {
    void look();
    return () => clearTimeout(timer);
  });

  async function look() {
    const open = router.screen.name === 'sheet' ? router.screen.id : null;
    try {
      two = await saveLeftovers(open);
    } catch {
      // The server is away: they stay in this browser, and are tried again.
    }
    timer = window.setTimeout(() => void look(), AGAIN_MS);
  }
</script>

{#each two as one (one.shoot)}
  <p class="left no-print" role="status">
    “{one.name}” was changed in a window that could not save it, and elsewhere since.
    <a class="link" href="/shoots/{one.shoot}/clip" onclick={router.follow}>Look at both versions</a>
  </p>
{/each}

<style>
  .left {
    padding: 8px 24px;
    border-bottom: 1px solid var(--ink);
    background: var(--wash2);
  }
</style>
