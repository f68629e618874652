<script lang="ts">
  /** What something is called, to be changed where it stands. */
  import { theEditor } from '../sheet/editor';

  interface Props {
    path: string;
    label: string;
    value: string;
    class?: string;
  }
  let { path, label, value, class: looks = '' }: Props = $props();
  const editor = theEditor();
  const trouble = $derived(editor.troubles.get(path));
</script>

<input
  class={['field', looks]}
  {value}
  aria-label={label}
  maxlength="120"
  onchange={(event) => void editor.type(path, event.currentTarget.value)}
/>
{#if trouble}<span role="alert">{trouble}</span>{/if}
