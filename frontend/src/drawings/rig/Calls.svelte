<script lang="ts">
  /** Each part by its name at the side, with what joins it to the next and what it carries; a touch chooses it. */
  import { write } from '../../format';
  import type { RigView } from './state.svelte';

  interface Props {
    view: RigView;
    onchoose: (index: number) => void;
  }
  let { view, onchoose }: Props = $props();
  const scale = $derived(view.scale);
  const width = $derived(view.width);
</script>

{#each view.listed as part, i (part.key)}
  {@const y = view.calls[i] ?? 0}
  {@const own = scale.y(part.y_mm + part.height_mm / 2)}
  {@const half = scale.px(part.width_mm / 2) * (part.kind === 'support' ? 0.1 : 1)}
  {@const edge = Math.min(width - 26, scale.x(view.placed(part)) + half + 3)}
  {@const carried = view.carries(part.index)}
  <g
    class="group cursor-pointer outline-none"
    role="button"
    tabindex="0"
    onclick={() => onchoose(part.index)}
    onkeydown={(event) => {
      if (event.key !== 'Enter' && event.key !== ' ') return;
      event.preventDefault();
      event.stopPropagation();
      onchoose(part.index);
    }}
  >
    <path
      class={['fill-none', part.bad ? 'stroke-stop' : 'stroke-second']}
      stroke-dasharray={part.bad ? '5 2' : undefined}
      d="M{edge} {own}H{width - 24}L{width - 4} {y}H{width + 6}"
    />
    <text
      class={[
        'text-[13px] font-[650] group-hover:underline group-focus-visible:underline',
        part.bad && 'fill-stop'
      ]}
      x={width + 12}
      y={y + 2}>{part.name}, {write(part.mass_g, 'g')}</text
    >
    <text class={part.bad ? 'fill-stop' : 'fill-second'} x={width + 12} y={y + 17}
      >{part.joint || 'on the ground'}{part.weakest && carried
        ? `, weakest: ${write(carried, 'g')} on it`
        : ''}</text
    >
  </g>
{/each}
