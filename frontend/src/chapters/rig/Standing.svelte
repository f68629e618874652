<script lang="ts">
  /** How it stands: level, slope, centre of mass, sag, what the motors draw over their lead, how long it settles. */
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Working from '../../parts/Working.svelte';
  import Leaning from './Leaning.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const lead = $derived(sheet.plan.rig.lead);
  const rail = $derived(sheet.plan.rig.axes.some(({ name }) => name === 'slide'));
  /** A rig that never stops has nothing to settle. */
  const stops = $derived(sheet.plan.rig.axes.length > 0 && sheet.plan.beat.school !== 'continuous');
  const FIGURES = [
    ['rig.centre.x', 'centre of mass, along'],
    ['rig.centre.y', 'centre of mass, up'],
    ['rig.tips.below', 'tips below'],
    ['rig.tips.above', 'tips past'],
    ['rig.sag', 'sag'],
    ['rig.sag_own', 'sag of its own weight'],
    ['rig.sag_all', 'sag in all'],
    ['rig.nod', 'the camera nods by'],
    ['rig.roll', 'the picture rolls by, at its edge'],
    ['rig.torque', 'torque needed'],
    ['rig.lets_go', 'pulls when unpowered']
  ] as const;
</script>

<div>
  <h3>How it stands</h3>
  <Rows ruled>
    {#if rail}<Row label="slope of the rail" path="rig.standing.slope_deg" unit="deg" min={-90} />{/if}
    <Row label="off level by" path="rig.standing.level_error_deg" unit="deg" />
    <FigureRow label="the horizon tilts by" figure="rig.horizon" />
    <Leaning />
    {#if rail}<Row label="support under the rail at" path="rig.standing.rail_at" unit="share" />{/if}
    {#each FIGURES as [figure, label] (figure)}<FigureRow {label} {figure} />{/each}
    {#if sheet.figure('rig.current')}
      <FigureRow label="motors draw at most" figure="rig.current" />
      {#if lead}
        <Row label={length}><Working figure="rig.lost" /></Row>
      {:else}
        <Row label="lead to the supply">
          <button type="button" class="link" onclick={() => sheet.begin('rig.lead')}>work it out</button>
        </Row>
      {/if}
    {/if}
    {#if stops}<Row label="settles in" path="beat.settle_s" name="settle" unit="s" />{/if}
  </Rows>
</div>

{#snippet length()}
  lead of <Editable path="rig.lead.length_mm" label="length of the lead" unit="mm" min={1} />,
  {#if lead?.ohm_per_m}<Editable path="rig.lead.ohm_per_m" label="a metre of one wire has" unit="Ω/m" />
    <button type="button" class="link" onclick={() => sheet.put('rig.lead.ohm_per_m', null)}>by mm²</button>
  {:else}<Editable path="rig.lead.area_mm2" label="cross-section of the lead" unit="mm²" min={0.01} />
    <button type="button" class="link" onclick={() => sheet.begin('rig.lead.ohm_per_m')}>by Ω/m</button>{/if}
  loses
{/snippet}
