<script lang="ts">
  /** How often the shutter opens in one beat: brackets, dark frames, a focus stack. */
  import { number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import Tick from '../../parts/Tick.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const beat = $derived(sheet.plan.beat);
  const bracketed = $derived(beat.bracket_times_s.length > 0 || beat.bracket_frames > 1);
</script>

<section class="leading-[1.75]">
  <h3>Exposures</h3>
  <p>
    {#if beat.bracket_times_s.length}
      a bracket of {#each beat.bracket_times_s.keys() as i (i)}{i ? ', ' : ''}<Editable
          path="beat.bracket_times_s.{i}"
          label="exposure {i + 1} of the bracket"
          unit="shutter"
        />
        <button
          type="button"
          class="link"
          aria-label="Leave out exposure {i + 1}"
          onclick={() => sheet.drop(`beat.bracket_times_s.${i}`)}>×</button
        >{/each}
      {#if beat.bracket_times_s.length < 15}<button
          type="button"
          class="link"
          onclick={() => sheet.begin('beat.bracket_times_s')}>one more</button
        >{/if}
    {:else}
      <Editable path="beat.bracket_frames" label="exposures in a bracket" unit="" min={1} />
      in a bracket{#if beat.bracket_frames > 1},
        <Editable path="beat.bracket_step_stops" label="stops apart" unit="stops" /> apart{/if}
    {/if}{#if bracketed}, gaps of <Editable path="beat.bracket_gap_s" label="gap in the bracket" unit="s" />:
      <Working figure="beat.exposures" />{/if}
  </p>
  {#if bracketed}
    <Tick
      checked={beat.bracket_times_s.length > 0}
      onchange={(on) => (on ? sheet.begin('beat.bracket_times_s') : sheet.put('beat.bracket_times_s', []))}
      >each by the time that the camera calls it</Tick
    >
  {/if}
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
      />, {#if sheet.evaluation.beat?.stepped}to each of which the motor turns the focus ring{:else}each a
        focus move of
        <Editable path="beat.stack.move_s" label="focus move" unit="s" /> by the camera itself{/if}, and
      <Editable path="beat.stack.settle_s" label="focus settle" unit="s" /> to settle. Storage and output folders
      multiply by as much.
    </p>
  {/if}
</section>
