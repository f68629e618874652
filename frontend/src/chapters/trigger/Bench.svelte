<script lang="ts">
  /** Preparing in order, then the bench test: guided with the stand-in camera, ticked by hand with the real one. */
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import BenchStep from './BenchStep.svelte';

  const sheet = theSheet();
  const trigger = $derived(sheet.evaluation.trigger);
  const rod = $derived(sheet.plan.trigger!.actuator);
  const output = $derived(sheet.evaluation.trigger.output);
  const steps = $derived(trigger.bench ?? []);
  const passed = $derived(steps.filter((step) => step.stand === 'passed').length);
</script>

<div class="leaf cols">
  <section>
    <h3>Before it is tried</h3>
    {#if trigger.prepare?.length}
      <ol>
        {#each trigger.prepare as one, n (n)}<li>
            <b>{one.what}</b> <span class="label">{one.why}</span>
          </li>{/each}
      </ol>
      {#if output === 'switch' || rod}
        <h4>
          A rod through a wall
          {#if rod}<button type="button" class="link" onclick={() => sheet.put('trigger.actuator', null)}
              >drop</button
            >{/if}
        </h4>
        {#if rod}
          <Rows>
            <Row label="the wall" path="trigger.actuator.wall_mm" unit="mm" />
            <Row label="the rod" path="trigger.actuator.rod_mm" unit="mm" min={0.1} />
            <Row label="the switch clicks after" path="trigger.actuator.click_mm" unit="mm" min={0.01} />
            <Row label="it can be pressed" path="trigger.actuator.travel_mm" unit="mm" min={0.01} />
            <FigureRow label="drill a hole of" figure="trigger.rod.hole" />
            <FigureRow label="it stands out" figure="trigger.rod.out" />
            <FigureRow label="cut the rod to" figure="trigger.rod.length" />
          </Rows>
          <p class="label">Something over the eyes for the drill, the wall clamped, nothing behind it.</p>
        {:else}<button type="button" class="link" onclick={() => sheet.begin('trigger.actuator')}
            >work out hole and length</button
          >{/if}
      {/if}
    {:else}<p class="mono-note">
        As soon as something fires the camera, what to do beforehand stands here.
      </p>{/if}
  </section>
  <section>
    <h3>
      The bench test <span class="label">{passed} of {steps.length} passed</span>
    </h3>
    {#each steps as step (step.what)}<BenchStep {step} />{/each}
    {#if steps.length}
      <h4>How much is enough</h4>
      <Rows>
        <Row label="frames that may be missed">
          <Editable
            path="trigger.may_miss"
            label="frames that may be missed"
            unit="frames"
            min={1}
            empty="one in a hundred"
          />
        </Row>
        <Row label="how sure it has to be" path="trigger.certainty" unit="share" min={0.5} />
        <FigureRow label="presses without a miss" figure="trigger.presses" />
        <FigureRow label="a worse chain passes all the same" figure="trigger.chance" />
      </Rows>
    {/if}
  </section>
</div>

<style>
  .cols {
    display: grid;
    grid-template-columns: 1fr 1.15fr;
    gap: 0 36px;
  }
  ol {
    list-style: decimal;
    padding-left: 22px;
  }
  li {
    padding: 3px 0;
  }
  li b {
    font-weight: 600;
  }
  li .label {
    display: block;
  }
  @media (max-width: 1000px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
