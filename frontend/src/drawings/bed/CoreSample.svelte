<script lang="ts">
  /** The print as a core sample: every layer a hairline, every photographed one inked; the playhead is a layer. */
  import { number } from '../../format';

  interface Props {
    /** Heights of the layers, lowest first; how many there are where they are not known. */
    z: readonly number[];
    layers: number;
    chosen: readonly number[];
    /** The layer at the playhead, from 1. */
    at: number;
    onat: (layer: number) => void;
  }
  let { z, layers, chosen, at, onat }: Props = $props();
  const TALL = 430;
  const [LEFT, WIDE] = [34, 30];
  const top = $derived(z.at(-1) ?? layers);
  const y = (layer: number) => TALL - 8 - ((z[layer - 1] ?? layer) / top) * (TALL - 22);
  /** Lines closer than a third of a pixel are one. */
  function lines(numbers: readonly number[]): string {
    let [text, last] = ['', Infinity];
    for (const layer of numbers) {
      const here = y(layer);
      if (Math.abs(here - last) < 0.33) continue;
      last = here;
      text += `M${LEFT} ${here.toFixed(2)}h${WIDE}`;
    }
    return text;
  }
  const all = $derived(lines(Array.from({ length: layers }, (_, n) => n + 1)));
  const inked = $derived(lines(chosen));
  const ticks = $derived.by(() => {
    const step = [1, 2, 5, 10, 20, 50, 100, 200].find((one) => top / one <= 9) ?? 500;
    return Array.from({ length: Math.floor(top / step) + 1 }, (_, n) => n * step);
  });
  const [GLASS, NEAR, ROOM] = [92, 5, 9];
  const glass = $derived(Math.max(14 + NEAR * ROOM, Math.min(TALL - 14 - NEAR * ROOM, y(at))));
  const about = $derived(
    Array.from({ length: 2 * NEAR + 1 }, (_, n) => at - NEAR + n).filter(
      (layer) => layer >= 1 && layer <= layers
    )
  );
  const taken = $derived(new Set(chosen));
  let column = $state<SVGSVGElement>();
  function near(clientY: number) {
    if (!column) return;
    const box = column.getBoundingClientRect();
    const height = ((TALL - 8 - ((clientY - box.top) / box.height) * TALL) / (TALL - 22)) * top;
    let best = 1;
    for (let layer = 1; layer <= layers; layer += 1)
      if (Math.abs((z[layer - 1] ?? layer) - height) < Math.abs((z[best - 1] ?? best) - height)) best = layer;
    onat(best);
  }
  function keys(event: KeyboardEvent) {
    const step = event.shiftKey ? 10 : 1;
    const to = {
      ArrowUp: at + step,
      ArrowDown: at - step,
      Home: 1,
      End: layers,
      PageUp: at + 50,
      PageDown: at - 50
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onat(Math.max(1, Math.min(layers, to)));
  }
</script>

<svg
  bind:this={column}
  viewBox="0 0 150 {TALL}"
  role="slider"
  tabindex="0"
  aria-label="layer"
  aria-orientation="vertical"
  aria-valuemin={1}
  aria-valuemax={layers}
  aria-valuenow={at}
  aria-valuetext="layer {at} of {layers}{z[at - 1] === undefined ? '' : `, at ${number(z[at - 1]!)} mm`}"
  onkeydown={keys}
  onpointerdown={(event) => {
    column?.setPointerCapture(event.pointerId);
    near(event.clientY);
  }}
  onpointermove={(event) => event.buttons && near(event.clientY)}
>
  <path class="hair" d={all} />
  <path class="ink" d={inked} />
  <rect x={LEFT} y={y(layers)} width={WIDE} height={TALL - 8 - y(layers)} />
  {#each ticks as tick (tick)}
    {@const at = TALL - 8 - (tick / top) * (TALL - 22)}
    <path class="tick" d="M{LEFT - 5} {at}h5" />
    <text x={LEFT - 8} y={at + 3.5} text-anchor="end">{tick}</text>
  {/each}
  <path class="head" d="M{LEFT - 3} {y(at)}h{WIDE + 6}" />
  <!-- Under a glass: the layers about the playhead, each to be told from the next. -->
  <path
    class="tick"
    d="M{LEFT + WIDE + 3} {y(at)}L{GLASS} {glass - NEAR * ROOM}M{LEFT + WIDE + 3} {y(at)}L{GLASS} {glass +
      NEAR * ROOM}"
  />
  {#each about as layer (layer)}
    {@const here = glass - (layer - at) * ROOM}
    <path class={taken.has(layer) ? 'photographed' : 'plain'} d="M{GLASS} {here}h24" />
    {#if layer === at || Math.abs(layer - at) === NEAR}<text
        class:at={layer === at}
        x={GLASS + 29}
        y={here + 3.5}>{layer}</text
      >{/if}
  {/each}
</svg>

<style>
  svg {
    display: block;
    height: 100%;
    max-height: 450px;
    width: 150px;
    cursor: ns-resize;
    touch-action: none;
  }
  path,
  rect {
    fill: none;
    stroke: var(--ink);
  }
  .hair {
    stroke: var(--hair);
    stroke-width: 0.35;
  }
  .ink {
    stroke-width: 0.45;
  }
  rect {
    stroke-width: 1;
  }
  .tick {
    stroke: var(--second);
  }
  .head {
    stroke-width: 2;
  }
  text {
    font-size: 11px;
    font-stretch: 86%;
    fill: var(--second);
  }
  .plain {
    stroke: var(--second);
    stroke-width: 0.7;
  }
  .photographed {
    stroke-width: 3.4;
  }
  .at {
    fill: var(--ink);
    font-weight: 650;
  }
</style>
