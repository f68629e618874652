<script lang="ts">
  /** One label with a figure that is worked out; nothing while the figure is not known. */
  import type { Snippet } from 'svelte';
  import { theSheet } from '../sheet/sheet.svelte';
  import Row from './Row.svelte';
  import Working from './Working.svelte';

  interface Props {
    label: string | Snippet;
    figure: string;
  }
  let { label, figure }: Props = $props();
  const sheet = theSheet();
</script>

{#if sheet.figure(figure)}<Row {label}><Working {figure} /></Row>{/if}
