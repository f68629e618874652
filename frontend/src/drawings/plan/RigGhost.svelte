<script lang="ts">
  /** Where the rig itself stands, dashed beside what is planned; pulled along it goes there when the hand lets go. */
  import { write } from '../../format';
  import { grasp, sized, type Grip } from '../../parts/grasp';
  import type { JogRig } from '../../sheet/jog.svelte';
  import { ahead, pointing } from './geometry';
  import { THUMB, type PlanView } from './state.svelte';

  interface Props {
    view: PlanView;
    rig: JogRig;
  }
  let { view, rig }: Props = $props();
  const to = $derived(view.to);
  const base = $derived(to.y(0));
  let aimed = $state<{ slide?: number; pan?: number }>({});
  const slide = $derived(aimed.slide ?? rig.at.slide);
  const pan = $derived(aimed.pan ?? rig.at.pan);
  const x = $derived(to.x((slide ?? 0) * view.slope));
  const tip = $derived(ahead((slide ?? 0) * view.slope, pan ?? 0, view.grip * 0.55));

  function grip(name: 'slide' | 'pan', at: (x: number, y: number) => number, step: number): Grip {
    return {
      name: `ghost ${name}`,
      take: () => !rig.busy,
      drag: (drag) => (aimed = { ...aimed, [name]: Number(at(drag.at.x, drag.at.y).toFixed(2)) }),
      atOnce: true,
      nudge: ({ way, size }) => {
        if (!rig.busy) void rig.by(name, way * sized(size, step, step * 10, step / 10));
      },
      release: () => {
        const sent = aimed[name];
        aimed = {};
        if (sent !== undefined) void rig.go({ [name]: sent });
      }
    };
  }
  const along = grip('slide', (px) => to.mmX(px) / view.slope, 1);
  const turn = grip('pan', (px, py) => pointing((slide ?? 0) * view.slope, to.mmX(px), to.mmY(py)), 0.5);
</script>

{#if rig.axes.includes('slide') && slide !== undefined}
  <g
    class="handle"
    role="slider"
    tabindex="0"
    aria-label="The rig on its rail"
    aria-valuenow={slide}
    aria-valuemin={view.rail.low}
    aria-valuemax={view.rail.high}
    aria-valuetext={write(slide, 'mm')}
    use:grasp={along}
  >
    <rect class="reach" x={x - 22} y={base - 44} width="44" height="30" />
    <path class="ghost" d="M{x - THUMB} {base - 14}v-16h{THUMB * 2}v16z" />
  </g>
{/if}
{#if rig.axes.includes('pan') && pan !== undefined}
  {@const [tx, ty] = [to.x(tip[0]), to.y(tip[1])]}
  <line class="ghost" x1={x} y1={base} x2={tx} y2={ty} />
  <g
    class="handle"
    role="slider"
    tabindex="0"
    aria-label="Where the rig looks"
    aria-valuenow={pan}
    aria-valuemin={view.head.low}
    aria-valuemax={view.head.high}
    aria-valuetext={write(pan, 'deg')}
    use:grasp={turn}
  >
    <circle class="reach" cx={tx} cy={ty} r="20" />
    <path class="ghost" d="M{tx} {ty - 8}l8 8l-8 8l-8 -8z" />
  </g>
{/if}

<style>
  .ghost {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.4;
    stroke-dasharray: 3 2;
  }
</style>
