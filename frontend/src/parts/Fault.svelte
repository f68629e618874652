<script lang="ts">
  /** A part of the sheet that could not be drawn: what went wrong, and ways on; the rest of the sheet lives. */
  import type { Snippet } from 'svelte';
  import { maybeTheSheet } from '../sheet/sheet.svelte';

  interface Props {
    name: string;
    children: Snippet;
  }
  let { name, children }: Props = $props();
  const sheet = maybeTheSheet();
  let wrong = $state.raw<{ said: string; reset: () => void }>();

  function failed(error: unknown, reset: () => void) {
    console.error(`${name}:`, error);
    wrong = { said: words(error), reset };
  }

  function again() {
    const { reset } = wrong ?? {};
    wrong = undefined;
    reset?.();
  }

  async function undo() {
    await sheet?.undo();
    again();
  }

  function words(error: unknown): string {
    return error instanceof Error ? error.message.split('\n')[0]! : String(error);
  }
</script>

<svelte:boundary onerror={failed}>
  {@render children()}
</svelte:boundary>
{#if wrong}
  <div class="fault" role="alert">
    <b>{name} cannot be drawn just now.</b>
    <p>The fault is Bridle’s; what you have entered is kept. It says: {wrong.said}</p>
    <p class="ways">
      {#if sheet?.undos.length}
        <button type="button" class="act" onclick={() => void undo()}>Undo the last change</button>
      {/if}
      <button type="button" class="act quiet" onclick={again}>Try again</button>
    </p>
  </div>
{/if}

<style>
  .fault {
    padding: 20px 24px;
    overflow-wrap: anywhere;
  }
  .fault b {
    font-size: 17px;
  }
  .fault p {
    margin-top: 6px;
    max-width: 62ch;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
</style>
