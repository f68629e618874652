<script lang="ts">
  /** Something that holds or does not, with what it is called. */
  import type { Snippet } from 'svelte';

  interface Props {
    checked: boolean;
    onchange: (checked: boolean) => void;
    children: Snippet;
  }
  let { checked, onchange, children }: Props = $props();
</script>

<label class="-ml-[5px] flex min-h-[26px] items-center gap-1 max-phone:min-h-11">
  <input type="checkbox" {checked} onchange={(event) => onchange(event.currentTarget.checked)} />
  {@render children()}
</label>
