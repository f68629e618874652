<script lang="ts">
  /** The times of the press, each where it can be changed. */
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const chain = $derived(sheet.plan.trigger!);
  const halfPresses = $derived(
    (sheet.evaluation.trigger.ends ?? []).some((end) => end === 'source.focus' || end === 'source.half')
  );
  const coupled = $derived((sheet.evaluation.trigger.ends ?? []).some((end) => end.startsWith('coupling.')));
  const pressed = $derived(!!sheet.evaluation.trigger.verdict);
</script>

<section>
  <h3>{pressed ? 'The press' : 'The times of a call'}</h3>
  <Rows>
    {#if pressed}
      {#if halfPresses}<Row label="half press ahead" path="beat.half_s" unit="s" />{/if}
      <Row label="pressed for" path="beat.press_s" unit="s" min={0.001} />
      <FigureRow label="the camera hears it for" figure="trigger.heard" />
      <Row label="takes until it presses" path="beat.call_s" unit="s" />
      {#if coupled}<Row label="coupling closes in" path="beat.couple_s" unit="s" />{/if}
    {/if}
    <Row label="camera wakes in" path="beat.wake_s" unit="s" />
    <Row label="shutter lag" path="beat.lag_s" unit="s" />
    <FigureRow label="from the press to the closed shutter" figure="trigger.closed" />
    <Row label="what calls the frames waits">
      {#if chain.dwell_s === null}<button
          type="button"
          class="link"
          onclick={() => sheet.begin('trigger.dwell_s')}>as long as it takes</button
        >
      {:else}<Editable path="trigger.dwell_s" label="what calls the frames waits" unit="s" min={0} />
        <button type="button" class="link" onclick={() => sheet.put('trigger.dwell_s', null)}>drop</button
        >{/if}
    </Row>
    <Row label="pressed to keep it awake">
      {#if chain.keep_awake_s === null}nothing is{:else}every <Editable
          path="trigger.keep_awake_s"
          label="pressed to keep it awake every"
          unit="s"
          min={1}
        />
        <button type="button" class="link" onclick={() => sheet.put('trigger.keep_awake_s', null)}
          >drop</button
        >{/if}
    </Row>
    <FigureRow label="the coupling is pressed" figure="trigger.cycles.coupling" />
    <FigureRow label="the switch is pressed" figure="trigger.cycles.trigger" />
    <FigureRow label="presses left in the remote’s cell" figure="trigger.cell" />
    <FigureRow label="two clocks: in time until frame" figure="trigger.apart" />
  </Rows>
  <h4>On the camera</h4>
  <Tick
    checked={chain.autofocus ?? false}
    onchange={(checked) => void sheet.set('trigger.autofocus', checked)}>it focuses by itself</Tick
  >
  <Tick
    checked={chain.stabiliser ?? false}
    onchange={(checked) => void sheet.set('trigger.stabiliser', checked)}>its stabiliser is on</Tick
  >
</section>
