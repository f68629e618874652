<script lang="ts">
  /** The bin: what was put away, and the way back. */
  import { onMount } from 'svelte';
  import { api, sentence, type ShootLine } from '../api/client';
  import { day } from '../format';
  import { router } from '../router.svelte';
  import { ownZone } from '../zones';

  let shoots = $state.raw<ShootLine[] | null>(null);
  let days = $state(30);
  let trouble = $state('');

  onMount(look);

  async function look() {
    try {
      const answer = await api.GET('/api/shoots', { params: { query: { binned: true } } });
      shoots = answer.data?.shoots ?? [];
      days = answer.data?.bin_days ?? days;
    } catch (error) {
      trouble = sentence(error);
    }
  }

  async function back(shoot: ShootLine) {
    await api.POST('/api/shoots/{shoot_id}/back', { params: { path: { shoot_id: shoot.id } } });
    await look();
  }
</script>

<svelte:head><title>Bin · Bridle</title></svelte:head>

<main>
  <h1>The bin</h1>
  <p class="mono-note">
    What lies here is kept for {days} days.
    <a class="link" href="/" onclick={router.follow}>Back to the shoots</a>
  </p>
  {#if trouble}<p role="alert">{trouble}</p>{/if}
  {#each shoots ?? [] as shoot (shoot.id)}
    <p class="row">
      <b>{shoot.name}</b>
      <span class="label"
        >{shoot.binned_at ? `since ${day(Date.parse(shoot.binned_at) / 1000, ownZone())}` : ''}</span
      >
      <button type="button" class="act quiet" onclick={() => void back(shoot)}>Put {shoot.name} back</button>
    </p>
  {:else}
    {#if shoots}<p class="empty">Nothing in the bin.</p>{/if}
  {/each}
</main>

<style>
  main {
    background: var(--sheet);
    min-height: 100dvh;
    padding: 20px 26px;
  }
  h1 {
    font-size: 23px;
    font-stretch: 108%;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 16px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    padding: 10px 0;
  }
  .row .act {
    margin-left: auto;
  }
  .row b {
    font-size: 17px;
  }
  .empty {
    margin-top: 20px;
    font-size: 17px;
  }
</style>
