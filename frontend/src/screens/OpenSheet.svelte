<script lang="ts">
  /** Fetches a shoot and opens its sheet; says so while it looks and when there is none. */
  import { api, sentence, type Opened } from '../api/client';
  import { router } from '../router.svelte';
  import SheetScreen from './SheetScreen.svelte';

  interface Props {
    id: number;
    chapter: string;
  }
  let { id, chapter }: Props = $props();

  let opened = $state.raw<Opened | null>(null);
  let trouble = $state('');

  // Another chapter of the same shoot is no reason to open it again.
  const wanted = $derived(id);
  $effect(() => {
    void open(wanted);
  });

  async function open(number: number) {
    opened = null;
    trouble = '';
    try {
      const answer = await api.GET('/api/shoots/{shoot_id}', { params: { path: { shoot_id: number } } });
      if (number !== id) return;
      if (answer.data) opened = answer.data;
      else trouble = 'There is no such shoot here. It may have been emptied from the bin.';
    } catch (error) {
      trouble = sentence(error);
    }
  }
</script>

{#if opened}
  {#key opened.id}<SheetScreen {opened} {chapter} />{/key}
{:else}
  <main class="p-8">
    {#if trouble}
      <h1 class="text-xl">{trouble}</h1>
      <p class="mt-2">
        <button type="button" class="link" onclick={() => void open(id)}>Try again</button>, or
        <a class="link" href="/" onclick={router.follow}>go to the shoots</a>.
      </p>
    {:else}<p role="status" class="mono-note">Unrolling the sheet …</p>{/if}
  </main>
{/if}
