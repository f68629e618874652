<script lang="ts">
  /** Where the mass is, and over what it has to stay. */
  import { write } from '../../format';
  import { GROUND, type RigView } from './state.svelte';

  let { view }: { view: RigView } = $props();
  const scale = $derived(view.scale);
  const x = $derived(scale.x(view.centre.x));
  const y = $derived(scale.y(view.centre.y));
  const left = $derived(view.centre.x < 0);
  const [from, until] = $derived(view.hold);
</script>

<line
  class={['stroke-[1.7]', view.tips ? 'stroke-stop' : 'stroke-ink']}
  stroke-dasharray="6 3"
  x1={x}
  x2={x}
  y1={y + 9}
  y2={GROUND}
/>
<circle class={['fill-sheet stroke-[1.7]', view.tips ? 'stroke-stop' : 'stroke-ink']} cx={x} cy={y} r="8" />
<path
  class={view.tips ? 'fill-stop' : 'fill-ink'}
  d="M{x} {y}V{y - 8}A8 8 0 0 1 {x + 8} {y}ZM{x} {y}V{y + 8}A8 8 0 0 1 {x - 8} {y}Z"
/>
<text
  class={['font-semibold', view.tips && 'fill-stop']}
  x={x + (left ? -13 : 13)}
  y={y + 4}
  text-anchor={left ? 'end' : 'start'}>centre of mass</text
>
{#if view.onFeet}
  <path
    class="fill-none stroke-ink stroke-[1.2]"
    d="M{scale.x(from)} {GROUND - 6}v12M{scale.x(until)} {GROUND - 6}v12M{scale.x(from)} {GROUND}H{scale.x(
      until
    )}"
  />
  <text class="fill-second" x={scale.x((from + until) / 2)} y={GROUND + 26} text-anchor="middle"
    >stands while the centre of mass is over these {write(Math.round(until - from), 'mm')}</text
  >
{/if}
