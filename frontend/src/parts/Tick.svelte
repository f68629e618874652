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

<label class="-ml-[5px] flex items-baseline gap-1 py-[5px] max-phone:py-[13px]">
  <input
    type="checkbox"
    class="-my-1.5 self-center max-phone:-my-3.5"
    {checked}
    onchange={(event) => onchange(event.currentTarget.checked)}
  />
  {@render children()}
</label>
