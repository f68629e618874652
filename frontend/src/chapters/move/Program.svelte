<script lang="ts">
  /** The program and the tables to take along, and the very program rehearsed on the simulated controller. */
  import { number, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Outdated from '../../parts/Outdated.svelte';
  import TakeAlong from '../../parts/TakeAlong.svelte';
  import type { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { Taken } from '../../sheet/taken.svelte';

  let { rig }: { rig: JogRig } = $props();
  const sheet = theSheet();
  const taken = new Taken(sheet.id);
  const rehearsed = $derived(rig.rehearsal);
  const OUTPUTS = [
    { value: 'digital output', label: 'numbered output', title: 'M64 and M65, or M62 and M63 on the way' },
    { value: 'coolant output', label: 'output of M8', title: 'Switched on by M8, off by M9' }
  ] as const;
</script>

<h3>To take along</h3>
<p class="acts my-1.5">
  <TakeAlong format="program" {taken} />
  <TakeAlong format="steps" {taken} />
  <TakeAlong format="frames" {taken} />
</p>
<p class="acts my-1.5">
  The camera is fired by the
  <Choice
    label="Output that fires the camera"
    options={OUTPUTS}
    value={sheet.plan.rig.controller.shutter}
    onchoose={(shutter) => void sheet.set('rig.controller.shutter', shutter)}
  />
  {#if sheet.plan.rig.controller.shutter === 'digital output'}<Editable
      path="rig.controller.output"
      label="number of the output"
      unit=""
    />{/if}
  for <Editable path="rig.controller.pulse_s" label="length of the pulse" unit="s" />
</p>
<p class="acts my-1.5">
  <button
    type="button"
    class="act quiet"
    disabled={rig.busy || !sheet.evaluation.frames}
    onclick={() => void rig.rehearse()}>Rehearse the program</button
  >
  <span class="label">on the simulated controller, the very text that is taken along</span>
</p>
{#if rig.wrong}<p role="alert">{rig.wrong}</p>{/if}
{#if rehearsed}
  <div class="my-2 border-l-3 border-ink pl-3" role="status">
    <Outdated of={rig.rehearsed} />
    <p>
      <b>{number(rehearsed.pictures, 12)} pictures fired</b>, each once, in {write(rehearsed.ends_s, 's')};
      never more than
      {write(rehearsed.late_s, 's')} from when they were due. {number(rehearsed.lines, 12)} lines.
    </p>
    <Rows>
      {#each sheet.evaluation.programmed as name (name)}
        <Row label="{name}, off its place">
          {number(rehearsed.off_steps[name] ?? 0, 2)} steps at most, {write(
            rehearsed.fastest[name] ?? 0,
            'share'
          )} of its top speed
        </Row>
      {/each}
    </Rows>
    <details>
      <summary class="min-h-6 cursor-pointer">How it begins</summary>
      <pre
        class="max-h-[220px] overflow-auto bg-wash px-2.5 py-2 text-xs leading-[1.4]">{rehearsed.opening}</pre>
    </details>
  </div>
{/if}
