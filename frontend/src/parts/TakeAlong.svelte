<script lang="ts">
  /** A file of the open shoot to take along; says so when the plan has changed since it was taken last. */
  import type formats from '../api/formats.json';
  import { clock, day } from '../format';
  import type { Taken } from '../sheet/taken.svelte';
  import { theSheet } from '../sheet/sheet.svelte';
  import Take from './Take.svelte';

  interface Props {
    format: keyof typeof formats;
    taken: Taken;
  }
  let { format, taken }: Props = $props();
  const sheet = theSheet();
  const since = $derived(taken.outdated(format, sheet.plan));
</script>

<span>
  <Take shoot={sheet.id} {format} ontake={() => taken.mark(format, sheet.plan)} />
  {#if since !== null}<span class="label" role="status"
      >out of date: taken {day(since, sheet.zone)}, {clock(since, sheet.zone, false)}; the plan has changed
      since</span
    >{/if}
</span>
