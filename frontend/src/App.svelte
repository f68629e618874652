<script lang="ts">
  import Fault from './parts/Fault.svelte';
  import Leftovers from './screens/Leftovers.svelte';
  import { router } from './router.svelte';
  import Bench from './screens/Bench.svelte';
  import Bin from './screens/Bin.svelte';
  import Dark from './screens/Dark.svelte';
  import Edge from './screens/Edge.svelte';
  import Keys from './screens/Keys.svelte';
  import Kit from './screens/Kit.svelte';
  import Log from './screens/Log.svelte';
  import OpenSheet from './screens/OpenSheet.svelte';
  import Units from './screens/Units.svelte';
  import Shoots from './screens/Shoots.svelte';

  let keysOpen = $state(false);
  let unitsOpen = $state(false);

  function keys(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    if (event.key !== '?' || target.matches('input, textarea, select')) return;
    keysOpen = true;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={keys} />

{#if router.screen.name === 'dark'}<Fault name="The list for the dark"><Dark id={router.screen.id} /></Fault>
{:else}
  <div class="app">
    <Edge onkeys={() => (keysOpen = true)} onunits={() => (unitsOpen = true)} />
    <div class="screen">
      <Leftovers />
      {#if router.screen.name === 'shoots'}<Fault name="The list of shoots"><Shoots /></Fault>
      {:else if router.screen.name === 'bin'}<Fault name="The bin"><Bin /></Fault>
      {:else if router.screen.name === 'log'}<Fault name="The logbook"><Log /></Fault>
      {:else if router.screen.name === 'bench'}<Fault name="The print bench"><Bench /></Fault>
      {:else if router.screen.name === 'kit'}<Fault name="The kit"
          ><Kit card={router.screen.card} shoot={router.screen.shoot} /></Fault
        >
      {:else if router.screen.name === 'sheet'}<OpenSheet
          id={router.screen.id}
          chapter={router.screen.chapter}
          leaf={router.screen.leaf}
        />
      {:else}
        <main class="p-8">
          <h1 class="text-xl">There is nothing at this address.</h1>
          <a class="link" href="/" onclick={router.follow}>To the shoots</a>
        </main>
      {/if}
    </div>
  </div>
{/if}
<Keys bind:open={keysOpen} />
<Units bind:open={unitsOpen} />

<style>
  .app {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
  }
  @media (max-width: 760px) {
    .app {
      display: block;
    }
  }
  @media print {
    .app {
      display: block;
    }
  }
</style>
