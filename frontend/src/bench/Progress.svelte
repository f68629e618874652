<script lang="ts">
  /** How far a piece of work is, what it is doing, and a way to stop it. */
  import { number } from '../format';
  import type { Work } from './prints.svelte';

  interface Props {
    work: Work;
    onstop: () => void;
  }
  let { work, onstop }: Props = $props();
  const KINDS = {
    read: 'reading',
    change: 'writing and proving',
    trial: 'making the trial',
    prove: 'proving'
  } as const;
  const share = $derived(work.out_of ? Math.min(1, work.done / work.out_of) : 0);
</script>

<div class="progress" role="status">
  <span
    >{work.doing ||
      (work.state === 'waiting' ? `waiting to begin: ${KINDS[work.kind]}` : KINDS[work.kind])}{work.out_of
      ? `, ${number(work.done / 1e6, 3)} of ${number(work.out_of / 1e6, 3)} MB`
      : ''}</span
  >
  <progress max="1" value={share} aria-label={work.doing || KINDS[work.kind]}></progress>
  <button type="button" class="link" onclick={onstop}>stop</button>
</div>

<style>
  .progress {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    max-width: 60ch;
    margin: 6px 0;
  }
  progress {
    grid-column: 1 / -1;
    grid-row: 2;
    width: 100%;
    height: 8px;
    appearance: none;
    border: 1px solid var(--ink);
    background: transparent;
  }
  progress::-webkit-progress-bar {
    background: transparent;
  }
  progress::-webkit-progress-value {
    background: var(--ink);
  }
</style>
