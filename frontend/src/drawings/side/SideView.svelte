<script lang="ts">
  /** From the side, to scale: lens, tilt and what it sees upright, the ground, and how high the marks stand. */
  import { number, write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Label from '../Label.svelte';
  import { HEIGHT } from './geometry';
  import { SideState } from './state.svelte';

  const side = new SideState(theSheet());
  const to = $derived(side.to);
  const [lower, middle, upper] = $derived(side.rays);
  const ground = $derived(to.y(-side.lens));
  const stretched = $derived(to.stretched);
</script>

<div class="overflow-hidden border-t border-hair" bind:clientWidth={side.page}>
  <svg class="block" width={side.width} height={HEIGHT} role="group" aria-label="Side view">
    <path class="fill-wash" d="M{to.x(0)} {to.y(0)}L{to.x(side.far)} {to.y(lower)}V{to.y(upper)}Z" />
    <line class="stroke-ink stroke-[1.6]" x1="0" x2={side.width} y1={ground} y2={ground} />
    <line
      class="stroke-second"
      stroke-dasharray="1.5 3.5"
      x1={to.x(0)}
      x2={side.width}
      y1={to.y(0)}
      y2={to.y(0)}
    />
    <line
      class="stroke-ink"
      stroke-dasharray="7 4"
      x1={to.x(0)}
      y1={to.y(0)}
      x2={to.x(side.far)}
      y2={to.y(middle)}
    />
    {#each side.seen as { mark, index }, n (index)}
      {@const [x, y] = [to.x(mark.y_mm), to.y(mark.z_mm)]}
      <line class="stroke-ink stroke-[1.8]" x1={x} x2={x} y1={ground} y2={y} />
      <g
        class="handle cursor-ns-resize"
        role="slider"
        tabindex="0"
        aria-label="Height of {mark.name}"
        aria-valuenow={mark.z_mm}
        aria-valuetext="{write(mark.z_mm, 'mm')} above the lens"
        use:grasp={side.markGrip(index)}
      >
        <circle class="reach" cx={x} cy={y} r="14" />
        <rect class="fill-ink" x={x - 5} y={y - 3} width="10" height="6" />
      </g>
      <Label {...side.labels[n]!} />
    {/each}
    {#each side.knobs as { tilt, x, y }, n (n)}
      <g
        class="handle cursor-ns-resize"
        role="slider"
        tabindex="0"
        aria-label={side.tilts ? `Tilt at keyframe ${n + 1}` : 'Tilt of the camera'}
        aria-valuenow={tilt}
        aria-valuetext={write(tilt, 'deg')}
        use:grasp={side.tiltGrip(n)}
      >
        <circle class="reach" cx={x} cy={y} r="16" />
        <circle class="knob" cx={x} cy={y} r="6" />
        {#if side.tilts}<text class="text-[11px] font-[650]" {x} y={y - 9} text-anchor="middle">{n + 1}</text
          >{/if}
      </g>
    {/each}
    <line class="stroke-ink stroke-[1.8]" x1={to.x(0)} x2={to.x(0)} y1={ground} y2={to.y(0)} />
    <g
      class="handle cursor-ns-resize"
      role="slider"
      tabindex="0"
      aria-label="Height of the lens"
      aria-valuenow={side.lens}
      aria-valuetext={write(side.lens, 'mm')}
      use:grasp={side.lensGrip()}
    >
      <circle class="reach" cx={to.x(0)} cy={to.y(0)} r="16" />
      <rect class="fill-ink" x={to.x(0) - 9} y={to.y(0) - 5} width="13" height="10" />
    </g>
    <text x="6" y={to.y(0) + 4}>{write(side.lens, 'mm')}</text>
    <text class="fill-second" x="6" y={to.y(0) + 17}>lens height</text>
    {#if side.slope}<text class="fill-second" x="6" y="12">rail rises {write(side.slope, 'deg')}</text>{/if}
    <text class="fill-second" x={side.width - 6} y={HEIGHT - 3} text-anchor="end"
      >{write(side.far / 1000, 'm')} across{stretched > 1.15 || stretched < 0.87
        ? `, heights ${number(stretched, 2)} × theirs`
        : ''}</text
    >
  </svg>
</div>
