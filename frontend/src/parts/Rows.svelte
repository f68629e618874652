<script lang="ts">
  /** Labels and values, one under the other. */
  import type { Snippet } from 'svelte';

  interface Props {
    /** With a line over each. */
    ruled?: boolean;
    children: Snippet;
  }
  let { ruled = false, children }: Props = $props();
</script>

<dl class={['rows', ruled && 'ruled']}>{@render children()}</dl>

<style>
  .rows > :global(div) {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 4px 12px;
  }
  .ruled > :global(div) {
    border-top: 1px solid var(--hair);
    padding-block: 2px;
  }
  .rows :global(dt) {
    color: var(--second);
  }
  .rows :global(dd) {
    text-align: right;
  }
</style>
