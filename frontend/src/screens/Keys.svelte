<script lang="ts">
  /** The list of keys. */
  import Modal from '../parts/Modal.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
  const KEYS = [
    ['1 … 5', 'the chapters of a sheet'],
    ['arrow keys', 'change the figure or move the handle in focus; Shift coarser, Alt finer'],
    ['Enter, or a digit', 'type over the figure in focus'],
    ['p', 'peg or release the figure in focus'],
    [', and .', 'a frame back, a frame on'],
    ['space', 'play and stop'],
    ['u and Shift u', 'undo and redo'],
    ['n, /, d', 'among the shoots: new, find, duplicate the one in focus'],
    ['u, Shift u, n, Esc', 'in the kit: undo, redo, a new card, put the card back'],
    ['+ and −', 'zoom the span in focus'],
    ['?', 'this list']
  ] as const;
</script>

<Modal bind:open title="Keys">
  <dl>
    {#each KEYS as [key, does] (key)}
      <dt>{key}</dt>
      <dd>{does}</dd>
    {/each}
  </dl>
</Modal>

<style>
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 6px 20px;
  }
  dt {
    font-weight: 650;
  }
  dd {
    color: var(--second);
  }
</style>
