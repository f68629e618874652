<script lang="ts">
  /** Which way the rail faces: north is turned by hand, the sun goes over it. */
  import { write } from '../../format';
  import { grasp } from '../../parts/grasp';
  import { onCompass } from './geometry';
  import type { PlanView } from './state.svelte';

  interface Props {
    view: PlanView;
  }
  let { view }: Props = $props();
  const middle = $derived({ x: view.width - 46, y: view.height - 46 });
  const normal = $derived(view.normal);
</script>

<g transform="translate({middle.x} {middle.y})">
  <g
    class="handle"
    role="slider"
    tabindex="0"
    aria-label={view.slides ? 'Bearing square to the rail' : 'Bearing straight ahead'}
    aria-valuenow={normal ?? 0}
    aria-valuemin={0}
    aria-valuemax={360}
    aria-valuetext={normal === null ? 'not known' : write(normal, 'deg')}
    use:grasp={view.north(middle)}
  >
    <circle class="reach" r="36" />
    <circle class="fill-sheet stroke-second" r="26" />
  </g>
  {#if normal !== null}
    <g transform="rotate({-normal})">
      <path class="fill-ink" d="M0 -24l5 18h-10z" />
      <text y="-29" text-anchor="middle">N</text>
    </g>
    {#if view.sunPath}<path class="fill-none stroke-ink stroke-4" d={view.sunPath} />{/if}
    {#if view.moonPath}<path
        class="fill-none stroke-ink stroke-2"
        stroke-dasharray="3 3"
        d={view.moonPath}
      />{/if}
    {#if view.moon?.up}
      {@const [x, y] = onCompass(view.moon.azimuth - normal, 20)}
      <path class="fill-ink" d="M{x + 3} {y - 5}a5.5 5.5 0 1 0 0 10a4.5 4.5 0 0 1 0 -10z" />
    {/if}
    {#if view.sun}
      {@const [x, y] = onCompass(view.sun.azimuth - normal, 26)}
      <circle class={['stroke-ink stroke-2', view.sun.up ? 'fill-sheet' : 'fill-ink']} cx={x} cy={y} r="5" />
    {/if}
  {:else}<text class="fill-second" y="4" text-anchor="middle">north?</text>{/if}
</g>
