<script lang="ts">
  /** The remote look: what is seen from afar, what that costs, and when an alarm tells that no frame came. */
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const look = $derived(sheet.plan.trigger!.look);
</script>

<div class="leaf afar">
  {#if look}
    <div class="cols">
      <section>
        <h3>What is sent</h3>
        <Rows>
          <Row
            label="a small picture of every so many frames"
            path="trigger.look.every_frames"
            unit="frames"
            min={1}
          />
          <Row label="it has" path="trigger.look.picture_kb" unit="kB" min={1} />
          <Row label="the link draws" path="trigger.look.link_w" unit="W" />
          <Row label="alarm after missing" path="trigger.look.alarm_frames" unit="frames" min={1} />
        </Rows>
        <button type="button" class="link" onclick={() => sheet.put('trigger.look', null)}
          >nobody looks in</button
        >
      </section>
      <section>
        <h3>What that comes to</h3>
        <Rows>
          <FigureRow label="pictures in a day" figure="trigger.look.pictures" />
          <FigureRow label="data in a day" figure="trigger.look.data" />
          <FigureRow label="energy in a day" figure="trigger.look.energy" />
          <FigureRow label="alarm after" figure="trigger.look.alarm" />
        </Rows>
      </section>
    </div>
    <h3>What is seen</h3>
    <p>
      The last picture, how many frames there are, the battery’s voltage and the camera’s clock: with the same
      figures beside it as they should be at that moment. A clock that is off, a count that lags, a voltage
      that falls faster than planned are seen days before the frames are missing.
    </p>
  {:else}
    <p>
      Whoever cannot stand beside the camera wants to know that it still takes frames. What the link costs in
      power and data, and how late an alarm comes, is told as soon as it is planned with.
    </p>
    <button type="button" class="act small" onclick={() => sheet.begin('trigger.look')}
      >Plan a look from afar</button
    >
  {/if}
</div>

<style>
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 36px;
  }
  p {
    max-width: 70ch;
    margin: 8px 0;
  }
  @media (max-width: 1000px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
