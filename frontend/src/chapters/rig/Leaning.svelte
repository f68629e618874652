<script lang="ts">
  /** A pan that leans: by how much, towards where, and the arc that it draws. */
  import ArcDrawing from '../../drawings/arc/ArcDrawing.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const number = $derived(sheet.plan.rig.axes.findIndex(({ name }) => name === 'pan'));
  const path = $derived(`rig.axes.${number}`);
  const lean = $derived(sheet.plan.rig.axes[number]?.lean_deg ?? null);
</script>

{#if number >= 0}
  {#if !lean}
    <Row label="axis of the pan">
      upright <button type="button" class="link" onclick={() => sheet.begin(`${path}.lean_deg`)}
        >lean it</button
      >
    </Row>
  {:else}
    <Row label="axis of the pan">
      leans by <Editable path="{path}.lean_deg" label="the pan leans by" unit="deg" />, its top towards
      <Editable path="{path}.lean_toward_deg" label="the pan leans towards" unit="deg" min={-180} /> of its own
      turn
      <button type="button" class="link" onclick={() => sheet.put(`${path}.lean_deg`, 0)}
        >stand it upright</button
      >
    </Row>
    <FigureRow label="the arc, from low to high" figure="lean.arc" />
    <FigureRow label="the camera rolls, at the start" figure="lean.start.roll" />
    <FigureRow label="at the end" figure="lean.end.roll" />
    <div class="!block pt-2"><ArcDrawing /></div>
  {/if}
{/if}
