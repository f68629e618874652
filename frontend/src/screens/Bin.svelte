<script lang="ts">
  /** The bin: what was put away, and the way back. */
  import { onMount } from 'svelte';
  import { api, got, sentence } from '../api/client';
  import { day } from '../format';
  import { KIND_NAMES } from '../kit/fields';
  import { router } from '../router.svelte';
  import { ownZone } from '../time';

  interface Binned {
    key: string;
    name: string;
    said: string;
    back: () => Promise<unknown>;
  }
  let things = $state.raw<Binned[] | null>(null);
  let days = $state(30);
  let trouble = $state('');

  onMount(look);

  async function look() {
    try {
      const query = { binned: true };
      const [shoots, cards] = await Promise.all([
        api.GET('/api/shoots', { params: { query } }),
        api.GET('/api/kit', { params: { query } })
      ]);
      days = got(shoots).bin_days;
      things = [
        ...got(shoots).shoots.map((shoot) => ({
          key: `shoot ${shoot.id}`,
          name: shoot.name,
          said: shoot.binned_at
            ? `shoot, since ${day(Date.parse(shoot.binned_at) / 1000, ownZone())}`
            : 'shoot',
          back: async () =>
            got(await api.POST('/api/shoots/{shoot_id}/back', { params: { path: { shoot_id: shoot.id } } }))
        })),
        ...got(cards).cards.map((line) => ({
          key: `card ${line.id}`,
          name: line.card.name,
          said: `kit card, ${KIND_NAMES[line.card.kind]}`,
          back: async () =>
            got(await api.POST('/api/kit/{card_id}/back', { params: { path: { card_id: line.id } } }))
        }))
      ];
    } catch (error) {
      trouble = sentence(error);
    }
  }

  async function back(thing: Binned) {
    try {
      await thing.back();
      await look();
    } catch (error) {
      trouble = sentence(error);
    }
  }
</script>

<svelte:head><title>Bin · Bridle</title></svelte:head>

<main>
  <h1>The bin</h1>
  <p class="mono-note">
    What lies here is kept for {days} days.
    <a class="link" href="/" onclick={router.follow}>Back to the shoots</a>, or to
    <a class="link" href="/kit" onclick={router.follow}>the kit</a>.
  </p>
  {#if trouble}<p role="alert">{trouble}</p>{/if}
  {#each things ?? [] as thing (thing.key)}
    <p class="row">
      <b>{thing.name}</b>
      <span class="label">{thing.said}</span>
      <button type="button" class="act quiet" onclick={() => void back(thing)}>Put {thing.name} back</button>
    </p>
  {:else}
    {#if things}<p class="empty">Nothing in the bin.</p>{/if}
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
