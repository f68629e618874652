<script lang="ts">
  /** What windows could not save before they were closed: saved by itself, or shown where that cannot be. */
  import { onMount } from 'svelte';
  import { sentence } from '../api/client';
  import { day } from '../format';
  import { download, fileName } from '../parts/download';
  import { calm } from '../parts/grasp';
  import { router } from '../router.svelte';
  import { asFile, asShoot, forget, saveLeftovers, type Left } from '../sheet/unsaved';
  import { theOpen } from '../sheet/open.svelte';
  import { ownZone } from '../time';

  const AGAIN_MS = 4000;
  let shown = $state.raw<Left[]>([]);
  let trouble = $state('');
  /** The one that is to be thrown away, once that is said twice. */
  let leaving = $state('');
  let timer = 0;

  onMount(() => {
    void look();
    return () => clearTimeout(timer);
  });

  async function look() {
    clearTimeout(timer);
    try {
      const opening = router.screen.name === 'sheet' ? router.screen.id : null;
      const found = await saveLeftovers(theOpen.identity, opening);
      // Nothing moves under a hand that holds something.
      await calm();
      shown = found;
    } catch {
      // The server is away: they stay in this browser, and are tried again.
    }
    timer = window.setTimeout(() => void look(), AGAIN_MS);
  }

  async function own(left: Left) {
    try {
      const id = await asShoot(left);
      trouble = '';
      router.go(`/shoots/${id}/clip`);
      await look();
    } catch (error) {
      trouble = sentence(error);
    }
  }

  function away(left: Left) {
    forget(left);
    leaving = '';
    void look();
  }

  const when = (left: Left) =>
    left.unsaved.at ? ` on ${day(left.unsaved.at / 1000, ownZone())}` : ' some time ago';
</script>

{#each shown as one (one.key)}
  <div class="left no-print" role="status" data-left={one.why}>
    <p>
      <b>{one.unsaved.name}</b> was changed{when(one)} in a window that could not save it.
      {#if one.why === 'two'}It has been changed elsewhere since.
        <a class="link" href="/shoots/{one.shoot}/clip" onclick={router.follow}>Look at both versions</a>
      {:else if one.why === 'second'}Another window’s changes were put back; these differ from them.
      {:else if one.why === 'gone'}The shoot is not here any more.
      {:else if one.why === 'elsewhere'}It belongs to other data than is open here.
      {:else}This Bridle cannot read it: {one.said}{/if}
    </p>
    {#if one.why !== 'two'}
      <p class="ways">
        {#if one.why !== 'refused'}<button type="button" class="act quiet" onclick={() => void own(one)}
            >Make it a shoot of its own</button
          >{/if}
        <button
          type="button"
          class="act quiet"
          onclick={() => download(fileName(one.unsaved.name), asFile(one))}
          >Take it along as a plan file</button
        >
        {#if leaving === one.key}
          <button type="button" class="link" onclick={() => away(one)}>Throw it away for good</button>
          <button type="button" class="link" onclick={() => (leaving = '')}>Keep it</button>
        {:else}<button type="button" class="link" onclick={() => (leaving = one.key)}>Throw it away</button
          >{/if}
      </p>
    {/if}
  </div>
{/each}
{#if trouble}<p class="left no-print" role="alert">{trouble}</p>{/if}

<style>
  .left {
    padding: 8px 24px;
    border-bottom: 1px solid var(--ink);
    background: var(--wash2);
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 6px 14px;
    margin-top: 4px;
  }
</style>
