<script lang="ts">
  /** The same path run live, for video. */
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const live = $derived(typeof sheet.plan.move.live_s === 'string');
</script>

<h3>Run live</h3>
{#if live}
  <Rows>
    <Row label="in" path="move.live_s" name="length of the live run" unit="s" />
    {#each sheet.plan.rig.axes as axis (axis.name)}
      <FigureRow label="{axis.name} at its fastest" figure="live.{axis.name}" />
    {/each}
  </Rows>
  <button type="button" class="link" onclick={() => sheet.put('move.live_s', null)}>not live</button>
{:else}
  <p class="mono-note">The same path for video: no frames, one take, the same limits.</p>
  <button type="button" class="link" onclick={() => sheet.begin('move.live_s')}>run it live too</button>
{/if}
