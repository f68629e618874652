<script lang="ts">
  /** The peg beside a figure of the sentence: in, the figure is held; out, it follows. */
  interface Props {
    label: string;
    held: boolean;
    pull?: boolean;
    onpeg: () => void;
  }
  let { label, held, pull = false, onpeg }: Props = $props();
</script>

<button
  type="button"
  class:held
  class:pull
  aria-pressed={held}
  aria-label={held ? `${label} is held. Pull its peg` : `Peg the ${label}`}
  title={held ? 'Held. Pull the peg to let it follow (p)' : 'Follows. Peg it to hold it (p)'}
  onclick={onpeg}
>
  <svg viewBox="0 0 14 14" aria-hidden="true">
    <circle cx="7" cy="7" r={held ? 5.5 : 4.4} />
  </svg>
</button>

<style>
  button {
    position: relative;
    display: inline-block;
    width: 0.36em;
    height: 0.36em;
    min-width: 12px;
    min-height: 12px;
    margin-left: 3px;
    vertical-align: 0.5em;
    line-height: 0;
  }
  /* A larger place to hit than the peg that is drawn. */
  button::after {
    content: '';
    position: absolute;
    inset: -6px -4px;
  }
  svg {
    width: 100%;
    height: 100%;
    overflow: visible;
  }
  circle {
    fill: none;
    stroke: var(--second);
    stroke-width: 1.8;
  }
  .held circle {
    fill: var(--ink);
    stroke: var(--ink);
  }
  .pull circle {
    fill: var(--sheet);
    stroke: var(--stop);
    stroke-width: 3;
    stroke-dasharray: 3 2;
  }
  @media (max-width: 760px) {
    button {
      margin: 0 0 0 10px;
    }
    button::after {
      inset: -16px;
    }
  }
</style>
