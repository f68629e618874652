<script lang="ts">
  /** The fall of the light with the finder beside it; below, the schools, what lights the scene, and the limits. */
  import Finder from '../../drawings/finder/Finder.svelte';
  import LightDrawing from '../../drawings/light/LightDrawing.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Limits from './Limits.svelte';
  import Lit from './Lit.svelte';
  import Now from './Now.svelte';
  import Schools from './Schools.svelte';
  import Steady from './Steady.svelte';
  import Weather from './Weather.svelte';
  import Where from './Where.svelte';

  const sheet = theSheet();
  const missing = $derived(sheet.evaluation.light.missing ?? []);
</script>

{#if missing.includes('clip')}
  <p class="mono-note">The light is told as soon as the sentence fixes frames and interval.</p>
{:else if missing.includes('daylight')}
  <Steady />
{:else if missing.includes('place')}
  <div class="unknown leaf">
    <p class="lead">
      Where does the camera stand? From the place follow sun, moon and twilight, and from them every change of
      setting.
    </p>
    <Where />
  </div>
{:else}
  <div class="fall">
    <div class="drawing"><LightDrawing height={320} /></div>
    <div class="seen"><Finder /><Now /><Weather /></div>
  </div>
  <div class="below leaf">
    <Schools />
    <div class="cols">
      <Lit />
      <Limits />
    </div>
  </div>
{/if}

<style>
  .fall {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 236px;
    gap: 18px;
  }
  .below {
    margin-top: 10px;
  }
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 32px;
    margin-top: 12px;
  }
  .lead {
    font-size: 17px;
    max-width: 60ch;
    margin: 12px 0;
  }
  @media (max-width: 1000px) {
    .fall,
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media (max-width: 760px) {
    .fall {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    .seen {
      display: contents;
    }
  }
</style>
