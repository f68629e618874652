<script lang="ts">
  /** How often the shutter opens in one beat: brackets, dark frames, a focus stack. */
  import { number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import Tick from '../../parts/Tick.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const beat = $derived(sheet.plan.beat);
</script>

<section class="leading-[1.75]">
  <h3>Exposures</h3>
  <p>
    <Editable path="beat.bracket_frames" label="exposures in a bracket" unit="" min={1} />
    in a bracket{#if beat.bracket_frames > 1},
      <Editable path="beat.bracket_step_stops" label="stops apart" unit="stops" /> apart, gaps of <Editable
        path="beat.bracket_gap_s"
        label="gap in the bracket"
        unit="s"
      />:
      <Working figure="beat.exposures" />{/if}
  </p>
  <Tick checked={beat.noise_reduction} onchange={(on) => sheet.put('beat.noise_reduction', on)}
    >noise reduction in the camera: a dark frame after each exposure</Tick
  >
  <p>merging in the camera <Editable path="beat.merge_s" label="merge in the camera" unit="s" /></p>
  <Tick
    checked={!!beat.stack}
    onchange={(on) => (on ? sheet.begin('beat.stack') : sheet.put('beat.stack', null))}>focus stack</Tick
  >
  {#if beat.stack}
    <p>
      from <Editable path="beat.stack.near_mm" label="near" unit="mm" min={1} /> to
      <Editable path="beat.stack.far_mm" label="far" unit="mm" min={1} />, overlapping by
      <Editable path="beat.stack.overlap" label="overlap" unit="share" />:
      <Working
        figure="beat.positions"
        shown="{number(sheet.figure('beat.positions')?.value ?? 1)} positions"
      />, each a focus move of <Editable path="beat.stack.move_s" label="focus move" unit="s" /> and
      <Editable path="beat.stack.settle_s" label="focus settle" unit="s" /> to settle. Storage and output folders
      multiply by as much.
    </p>
  {/if}
</section>
