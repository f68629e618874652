<script lang="ts">
  /** A file of the shoot to take along, as the catalogue of formats calls it. */
  import formats from '../api/formats.json';

  interface Props {
    shoot: number;
    format: keyof typeof formats;
    /** Other words for it, where the place says what it is. */
    label?: string;
    ontake?: () => void;
  }
  let { shoot, format, label, ontake }: Props = $props();
  const file = $derived(formats[format]);
</script>

<a class="link" href="/files/shoots/{shoot}/{file.file}" download onclick={ontake}>{label ?? file.title}</a>
