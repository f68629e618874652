<script lang="ts">
  /** Fetches a shoot and opens its sheet; says so while it looks and when there is none. */
  import Take from '../parts/Take.svelte';
  import { api, sentence, type Opened, type Trouble } from '../api/client';
  import { router } from '../router.svelte';
  import { toldOnce } from '../sheet/imported';
  import SheetScreen from './SheetScreen.svelte';

  interface Props {
    id: number;
    chapter: string;
    leaf: string | undefined;
  }
  let { id, chapter, leaf }: Props = $props();

  let opened = $state.raw<Opened | null>(null);
  let trouble = $state('');
  let broken = $state(false);
  let problems = $state.raw<string[]>([]);

  // Another chapter of the same shoot is no reason to open it again.
  const wanted = $derived(id);
  $effect(() => {
    void open(wanted);
  });

  async function open(number: number) {
    opened = null;
    trouble = '';
    broken = false;
    problems = [];
    try {
      const answer = await api.GET('/api/shoots/{shoot_id}', { params: { path: { shoot_id: number } } });
      if (number !== id) return;
      if (answer.data) opened = { ...answer.data, changed: toldOnce(number, answer.data.changed) };
      else if (answer.response.status === 404)
        trouble = 'There is no such shoot here. It may have been emptied from the bin.';
      else {
        trouble = sentence(answer.error);
        broken = answer.response.status === 422;
        problems = ((answer.error as Trouble).problems ?? []).map((one) => one.expected);
      }
    } catch (error) {
      trouble = sentence(error);
    }
  }
</script>

{#if opened}
  {#key opened.id}<SheetScreen {opened} {chapter} {leaf} />{/key}
{:else}
  <main class="p-8">
    {#if trouble}
      <h1 class="text-xl">{trouble}</h1>
      {#each problems as problem, i (i)}<p class="mt-1">{problem}</p>{/each}
      {#if broken}<p class="mt-2">
          <Take shoot={id} format="plan" label="Take its plan along" />
        </p>{/if}
      <p class="mt-2">
        <button type="button" class="link" onclick={() => void open(id)}>Try again</button>, or
        <a class="link" href="/" onclick={router.follow}>go to the shoots</a>.
      </p>
    {:else}<p role="status" class="mono-note">Unrolling the sheet …</p>{/if}
  </main>
{/if}
