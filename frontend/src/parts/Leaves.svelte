<script lang="ts">
  /** The leaves of a chapter, one of which lies open; each has an address of its own. */
  import { router } from '../router.svelte';

  interface Props {
    label: string;
    /** The address of the chapter. */
    at: string;
    leaves: readonly { key: string; label: string }[];
    open: string;
  }
  let { label, at, leaves, open }: Props = $props();
</script>

<nav class="no-print" aria-label={label}>
  {#each leaves as leaf (leaf.key)}
    <a
      href="{at}/{leaf.key}"
      class:here={open === leaf.key}
      aria-current={open === leaf.key ? 'page' : undefined}
      onclick={router.follow}>{leaf.label}</a
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    gap: 22px;
  }
  a {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    min-height: 28px;
    font-size: 14px;
    color: var(--second);
    border-bottom: 2px solid transparent;
    white-space: nowrap;
  }
  a:hover {
    color: var(--ink);
  }
  .here {
    color: var(--ink);
    font-weight: 650;
    border-bottom-color: var(--ink);
  }
  @media (max-width: 760px) {
    nav {
      flex-wrap: wrap;
      gap: 0 18px;
    }
    a {
      min-height: 44px;
      min-width: 44px;
    }
  }
</style>
