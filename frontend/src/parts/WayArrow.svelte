<script lang="ts">
  /** A direction as a small arrow: along a rail, round to a side, up or down, or rolled. */
  let { way }: { way: string } = $props();
  /** Drawn in a box of 18 by 12; the others are these turned over. */
  const PATHS: Record<string, [string, string]> = {
    forwards: ['M1 6H16M12 2.5 16 6 12 9.5', ''],
    backwards: ['M1 6H16M12 2.5 16 6 12 9.5', 'matrix(-1 0 0 1 18 0)'],
    'to the right': ['M2 10A8 8 0 0 1 15 7.5M11 8.6 15 7.5 13.9 3.5', ''],
    'to the left': ['M2 10A8 8 0 0 1 15 7.5M11 8.6 15 7.5 13.9 3.5', 'matrix(-1 0 0 1 18 0)'],
    up: ['M9 11.5V1M5.5 4.5 9 1 12.5 4.5', ''],
    down: ['M9 11.5V1M5.5 4.5 9 1 12.5 4.5', 'matrix(1 0 0 -1 0 12)'],
    clockwise: ['M4 10A5.5 5.5 0 1 1 13.5 9M10.2 9 13.5 9 13.9 5.6', ''],
    anticlockwise: ['M4 10A5.5 5.5 0 1 1 13.5 9M10.2 9 13.5 9 13.9 5.6', 'matrix(-1 0 0 1 18 0)']
  };
  const drawn = $derived(PATHS[way]);
</script>

{#if drawn}
  <svg viewBox="0 0 18 12" width="18" height="12" role="img" aria-label="plus is {way}">
    <path d={drawn[0]} transform={drawn[1] || undefined} />
  </svg>
{/if}

<style>
  svg {
    display: inline-block;
    vertical-align: -1px;
    margin-left: 3px;
  }
  path {
    fill: none;
    stroke: currentColor;
    stroke-width: 1.4;
    stroke-linecap: square;
  }
</style>
