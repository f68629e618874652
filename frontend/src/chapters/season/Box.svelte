<script lang="ts">
  /** The box from the side: sun, camera, glass; what it gets to inside, and what wind does to its mast. */
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Editable from '../../parts/Editable.svelte';
  import BoxDrawing from '../../drawings/season/BoxDrawing.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import PutOnPart from './PutOnPart.svelte';

  const sheet = theSheet();
  const copies = $derived(sheet.plan.kit?.copies ?? []);
  const at = $derived(copies.findIndex(({ card }) => card.kind === 'box'));
  const box = $derived.by(() => {
    const card = copies[at]?.card;
    return card?.kind === 'box' ? card : null;
  });
  const lens = $derived.by(() => {
    const card = copies.find((copy) => copy.card.kind === 'lens')?.card;
    return card?.kind === 'lens' ? card : null;
  });
  const mast = $derived(copies.findIndex(({ card }) => card.kind === 'support' && card.tube != null));
  const path = $derived(`kit.copies.${at}.card`);
</script>

{#if !box}
  <p class="mono-note">
    A camera that stays outside has a box: how warm it gets in the sun, whether the lens fits behind the
    glass, when that fogs over and what wind does are told of its card.
  </p>
  <PutOnPart kinds={['box']} label="+ a box" />
{:else}
  <div class="cols">
    <BoxDrawing {box} {lens} />
    <div>
      <h3>Warmth</h3>
      <Rows>
        <Row label="warmest day"
          ><Editable
            path="season.climate.warmest_c"
            label="warmest day"
            unit="°C"
            min={-90}
            empty="not known"
          /></Row
        >
        <FigureRow label="taken up from the sun" figure="box.sun" />
        <FigureRow label="lost in the regulator" figure="box.regulator" />
        <FigureRow label="inside, in the sun" figure="box.inside" />
      </Rows>
      <h3>Glass</h3>
      <Rows>
        <Row label="from the mount to the glass" path="{path}.room_mm" unit="mm" />
        <Row label="window, clear across" path="{path}.window_mm" unit="mm" />
        <FigureRow label="glass that the lens sees through" figure="box.window" />
        <Row label="coldest night"
          ><Editable
            path="season.climate.coldest_c"
            label="coldest night"
            unit="°C"
            min={-90}
            empty="not known"
          /></Row
        >
        <FigureRow label="dew point of the air" figure="box.dew" />
      </Rows>
      <h3>Wind</h3>
      <Rows>
        <Row label="strongest" path="season.climate.wind_m_s" unit="m/s" />
        <FigureRow label="push on the box" figure="wind.push" />
        <FigureRow label="push on the mast" figure="wind.mast" />
        <FigureRow label="turns at its clamp with" figure="wind.turn" />
        {#if mast >= 0}<Row label="the mast stands free over"
            ><Editable
              path="kit.copies.{mast}.card.free_mm"
              label="mast stands free"
              unit="mm"
              empty="not known"
            /></Row
          >{/if}
        <FigureRow label="it leans by" figure="wind.lean" />
        <FigureRow label="of the picture" figure="wind.px" />
      </Rows>
    </div>
  </div>
  <p class="caution">
    A battery in a closed box needs a vent and a fuse at its terminal; nothing may short it. What is on a mast
    can fall: a second tether, the owner’s permission, and somebody who is trained for it. Mains is a
    qualified person’s alone.
  </p>
{/if}

<style>
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1.2fr) minmax(280px, 0.8fr);
    gap: 0 28px;
  }
  h3 + :global(dl) {
    margin-bottom: 10px;
  }
  .caution {
    border-top: 1px solid var(--ink);
    padding-top: 8px;
    max-width: 90ch;
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
