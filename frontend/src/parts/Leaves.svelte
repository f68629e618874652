<script lang="ts" generics="T extends string">
  /** The leaves of a chapter, one of which lies open. */
  interface Props {
    label: string;
    leaves: readonly { key: T; label: string }[];
    open: T;
    onopen: (leaf: T) => void;
  }
  let { label, leaves, open, onopen }: Props = $props();
</script>

<nav aria-label={label}>
  {#each leaves as one (one.key)}
    <button
      type="button"
      class:here={open === one.key}
      aria-current={open === one.key ? 'true' : undefined}
      onclick={() => onopen(one.key)}>{one.label}</button
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    gap: 22px;
  }
  button {
    min-height: 28px;
    font-size: 14px;
    color: var(--second);
    border-bottom: 2px solid transparent;
    white-space: nowrap;
  }
  button:hover {
    color: var(--ink);
  }
  .here {
    color: var(--ink);
    font-weight: 650;
    border-bottom-color: var(--ink);
  }
  @media (max-width: 760px) {
    nav {
      overflow-x: auto;
      gap: 18px;
    }
    button {
      min-height: 44px;
    }
  }
</style>
