<script lang="ts">
  /** One label with its value: what stands within, a figure that can be changed, or one that is worked out. */
  import type { Snippet } from 'svelte';
  import Editable from './Editable.svelte';

  interface Props {
    label: string | Snippet;
    /** Where a figure stands that can be changed; `name` is what it is called by itself. */
    path?: string;
    name?: string;
    unit?: string;
    min?: number;
    children?: Snippet;
  }
  let { label, path, name, unit = '', min = 0, children }: Props = $props();
</script>

<div>
  <dt>
    {#if typeof label === 'string'}{label}{:else}{@render label()}{/if}
  </dt>
  <dd>
    {#if path}<Editable {path} label={name ?? String(label)} {unit} {min} />{/if}
    {@render children?.()}
  </dd>
</div>
