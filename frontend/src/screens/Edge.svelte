<script lang="ts">
  /** The edge of the sheet: the places, the look, the keys. */
  import Camera from '@lucide/svelte/icons/camera';
  import Circle from '@lucide/svelte/icons/contrast';
  import Layers from '@lucide/svelte/icons/layers';
  import Book from '@lucide/svelte/icons/notebook-text';
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import Grid from '@lucide/svelte/icons/panels-top-left';
  import Ruler from '@lucide/svelte/icons/ruler';
  import { look } from '../looks/look.svelte';
  import { router } from '../router.svelte';

  interface Props {
    onkeys: () => void;
    onunits: () => void;
  }
  let { onkeys, onunits }: Props = $props();

  const places = [
    { path: '/', label: 'Shoots', icon: Grid, screens: ['shoots', 'sheet', 'bin'] },
    { path: '/kit', label: 'Kit', icon: Camera, screens: ['kit'] },
    { path: '/bench', label: 'Prints', icon: Layers, screens: ['bench'] },
    { path: '/log', label: 'Log', icon: Book, screens: ['log'] }
  ];
</script>

<nav class="edge no-print" aria-label="Places">
  {#each places as place (place.path)}
    {@const here = place.screens.includes(router.screen.name)}
    <a href={place.path} onclick={router.follow} class:here aria-current={here ? 'page' : undefined}>
      <place.icon size={20} strokeWidth={1.6} aria-hidden="true" />
      {place.label}
    </a>
  {/each}
  <span class="gap"></span>
  <button
    type="button"
    onclick={() => look.next()}
    title="Paper, cyanotype, safelight"
    aria-label="Look: {look.now}. Take the next"
  >
    <Circle size={20} strokeWidth={1.6} aria-hidden="true" />
    Look
  </button>
  <button type="button" onclick={onunits}>
    <Ruler size={20} strokeWidth={1.6} aria-hidden="true" />
    Units
  </button>
  <button type="button" onclick={onkeys} class="keys">
    <Keyboard size={20} strokeWidth={1.6} aria-hidden="true" />
    Keys
  </button>
</nav>

<style>
  .edge {
    position: sticky;
    top: 0;
    display: flex;
    flex-direction: column;
    width: 60px;
    height: 100dvh;
    border-right: 1px solid var(--hair);
    padding: 14px 0;
    gap: 4px;
  }
  a,
  button {
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    gap: 3px;
    min-height: 54px;
    width: 100%;
    font-size: 11px;
    font-stretch: 86%;
    color: var(--second);
    border-left: 3px solid transparent;
    border-right: 3px solid transparent;
  }
  .here {
    color: var(--ink);
    border-left-color: var(--ink);
    font-weight: 600;
  }
  a:hover,
  button:hover {
    color: var(--ink);
  }
  a:focus-visible,
  button:focus-visible {
    outline-offset: -3px;
  }
  .gap {
    flex: 1;
  }
  @media (max-width: 760px) {
    .edge {
      position: static;
      flex-direction: row;
      gap: 0;
      width: 100%;
      height: auto;
      padding: 0;
      border-right: 0;
      border-bottom: 1px solid var(--hair);
    }
    a,
    button {
      flex-direction: row;
      gap: 4px;
      min-height: 48px;
      width: auto;
      padding: 0 11px;
      font-size: 12px;
      border-left: 0;
      border-right: 0;
    }
    .here {
      box-shadow: inset 0 -3px var(--ink);
    }
    .keys {
      display: none;
    }
    .edge :global(svg) {
      display: none;
    }
  }
</style>
