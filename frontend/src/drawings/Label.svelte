<script lang="ts">
  /** A label of a drawing where it has found room, with a line back to its thing where it had to move away. */
  import { LINE, type Placed } from './labels';

  interface Props {
    at: Placed;
    lines: readonly string[];
    /** Something near enough to be named in bold. */
    bold?: boolean;
  }
  let { at, lines, bold = false }: Props = $props();
</script>

{#if at.lead}
  {@const [x1, y1, x2, y2] = at.lead}
  <line class="stroke-second" {x1} {y1} {x2} {y2} />
{/if}
{#each lines as line, n (n)}
  <text
    class={['halo', bold && n === 0 ? 'font-[650]' : 'fill-second']}
    x={at.x}
    y={at.y + n * LINE}
    text-anchor={at.anchor}>{line}</text
  >
{/each}
