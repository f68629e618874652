<script lang="ts">
  /** Says that something was made from a plan that has changed since. */
  import type { Plan } from '../api/client';
  import { theSheet } from '../sheet/sheet.svelte';

  interface Props {
    /** The plan that it was made from. */
    of: Plan | undefined;
  }
  let { of }: Props = $props();
  const sheet = theSheet();
  const changed = $derived(
    of !== undefined && of !== sheet.plan && JSON.stringify(of) !== JSON.stringify(sheet.plan)
  );
</script>

{#if changed}<p class="outdated" role="status">
    <b>Out of date.</b> The plan has changed since this was made.
  </p>{/if}

<style>
  .outdated {
    border-left: 4px double var(--mind);
    padding-left: 8px;
    margin: 4px 0;
  }
</style>
