<script lang="ts">
  /** The chain as a wiring diagram: two ends touched one after the other are joined, or parted again. */
  import type { components } from '../../api/schema';
  import { path, strokes } from './symbols';

  interface Props {
    diagram: components['schemas']['Diagram'];
    /** Two ends are to be joined, or parted. */
    onjoin?: (a: string, b: string) => void;
  }
  let { diagram, onjoin }: Props = $props();
  let held = $state('');
  const wires = $derived(diagram.wires ?? []);
  const blocks = $derived(diagram.blocks ?? []);
  const named = $derived(
    new Map(
      blocks.flatMap((block) =>
        block.ends.map((end) => [
          end.end,
          `${block.part === 'source' ? 'what fires' : block.part}: ${end.label}`
        ])
      )
    )
  );
  const touching = $derived(wires.find((wire) => wire.ends.includes(held)));

  function take(end: string) {
    if (!held) held = end;
    else if (held === end) held = '';
    else {
      onjoin?.(held, end);
      held = '';
    }
  }
</script>

<div class="frame scrolls">
  <svg
    viewBox="0 0 {diagram.width} {diagram.height}"
    style:max-width="{diagram.width * 1.15}px"
    style:min-width="{diagram.width * 0.86}px"
    role="group"
    aria-label="Wiring diagram: {wires
      .map((wire) => wire.ends.map((end) => named.get(end) ?? end).join(' to '))
      .join('; ')}"
  >
    {#if diagram.sheath}
      {@const [x, y, w, h] = diagram.sheath}
      <rect class="sheath" {x} {y} width={w} height={h} rx="9" />
    {/if}
    {#each wires as wire (wire.ends.join())}
      <g class:held={wire === touching}>
        {#each wire.lines as line, n (n)}<path class="wire" d={path(line)} />{/each}
        {#each wire.dots as dot, n (n)}<circle class="dot" cx={dot[0]} cy={dot[1]} r="3.2" />{/each}
      </g>
    {/each}
    {#each blocks as block (block.part)}
      <rect class="block" x={block.x} y={block.y} width={block.width} height={block.height} />
      {#each block.lines as line, n (n)}<path class="inner" d={path(line)} />{/each}
      {#each block.glyphs as glyph, n (n)}
        {#each strokes(glyph) as stroke, m (m)}<path
            class={['glyph', stroke.full && 'full']}
            d={stroke.d}
          />{/each}
      {/each}
    {/each}
    {#each diagram.words ?? [] as word, n (n)}
      <text class={word.role} x={word.at[0]} y={word.at[1]} text-anchor={word.anchor}>{word.text}</text>
    {/each}
    {#each blocks as block (block.part)}
      {#each block.ends as end (end.end)}
        {#if onjoin}
          <g
            class="end"
            role="button"
            tabindex="0"
            aria-pressed={held === end.end}
            aria-label="{named.get(end.end)}{end.joined ? '' : ', joined to nothing'}{held && held !== end.end
              ? ': join it here, or part it'
              : ''}"
            onclick={() => take(end.end)}
            onkeydown={(event) => {
              if (event.key === 'Escape') held = '';
              if (event.key !== 'Enter' && event.key !== ' ') return;
              event.preventDefault();
              event.stopPropagation();
              take(end.end);
            }}
          >
            <circle class="reach" cx={end.at[0]} cy={end.at[1]} r="15" />
            <circle
              class={['terminal', held === end.end && 'on', !end.joined && 'loose']}
              cx={end.at[0]}
              cy={end.at[1]}
              r="4.4"
            />
          </g>
        {:else}
          <circle class={['terminal', !end.joined && 'loose']} cx={end.at[0]} cy={end.at[1]} r="4" />
        {/if}
      {/each}
    {/each}
  </svg>
</div>

<style>
  .frame {
    overflow-x: auto;
  }
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  path,
  rect,
  circle {
    fill: none;
    stroke: var(--ink);
  }
  .block {
    stroke: var(--hair);
  }
  .wire {
    stroke-width: 1.8;
  }
  .held .wire {
    stroke-width: 3;
  }
  .inner {
    stroke-width: 1.2;
  }
  .glyph {
    stroke-width: 1.4;
  }
  .full,
  .dot {
    fill: var(--ink);
  }
  .sheath {
    stroke: var(--second);
    stroke-dasharray: 6 3;
  }
  .terminal {
    fill: var(--sheet);
    stroke-width: 1.4;
  }
  .terminal.loose {
    stroke-dasharray: 2 1.6;
  }
  .terminal.on {
    fill: var(--ink);
  }
  .reach {
    fill: transparent;
    stroke: none;
  }
  .end {
    cursor: pointer;
    outline: none;
  }
  .end:hover .terminal {
    stroke-width: 2.6;
  }
  .end:focus-visible .reach {
    stroke: var(--ink);
    stroke-width: 2;
  }
  text {
    fill: var(--ink);
    font-size: 12px;
    font-stretch: 88%;
  }
  text.title {
    font-size: 13px;
    font-weight: 650;
  }
  text.value,
  text.lead {
    fill: var(--second);
  }
</style>
