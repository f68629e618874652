<script lang="ts">
  /** What lights the scene: the place, cloud and lamps, and the exposures that looked right. */
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Where from './Where.svelte';

  const sheet = theSheet();
  const light = $derived(sheet.plan.light!);
  const proofs = $derived(light.proofs ?? []);
</script>

<section>
  <h3>What lights the scene</h3>
  <Where brief />
  <p class="line">
    cloud takes <Editable path="light.cloud_stops" label="cloud" unit="stops" />, lamps add
    <Editable path="light.town_lx" label="light of lamps" unit="lx" />
    {#if !proofs.length}<br />the scene is darker than open ground by
      <Editable path="light.offset_stops" label="darker than open ground" unit="stops" min={-10} />{/if}
  </p>
  <p class="line">
    a night looks darker than day by <Editable
      path="light.night_stops"
      label="a night looks darker by"
      unit="stops"
    />
  </p>
  <p class="line">
    at the first frame <Working figure="light.first.lx" />, wanted <Working figure="light.first.wanted" />; at
    the last <Working figure="light.last.lx" />, wanted <Working figure="light.last.wanted" />
  </p>
  <h4>
    Exposures that looked right {#if proofs.length < 2}<button
        type="button"
        class="link"
        onclick={() => sheet.begin('light.proofs')}>+ a test exposure</button
      >{/if}
  </h4>
  {#each proofs as proof, n (n)}
    <p class="line test">
      at <Editable
        path="light.proofs.{n}.at"
        label="time of test {n + 1}"
        value={Date.parse(proof.at) / 1000}
        unit="instant"
      />:
      <Editable path="light.proofs.{n}.shutter_s" label="shutter of test {n + 1}" unit="shutter" />, ISO
      <Editable path="light.proofs.{n}.iso" label="ISO of test {n + 1}" unit="" />,
      <Editable
        path="light.proofs.{n}.aperture"
        label="aperture of test {n + 1}"
        unit="f-number"
      />{#if proof.density_stops}, filter <Editable
          path="light.proofs.{n}.density_stops"
          label="filter of test {n + 1}"
          unit="stops"
        />{/if}
      <button
        type="button"
        class="link"
        aria-label="drop test {n + 1}"
        onclick={() => sheet.drop(`light.proofs.${n}`)}>drop</button
      >
      <span class="label"
        >is <Working figure="light.proof.{n}" />, <Working figure="light.proof.{n}.off" /> brighter than the model</span
      >
    </p>
  {:else}
    <p class="label">
      By the model alone the light may be a stop off, and a dark house or a bright beach changes more than
      that. Take one picture that looks right, and put down when and how: the whole curve goes through it.
    </p>
  {/each}
  {#if sheet.figure('light.misfit')}
    <p class="line">
      the two contradict the model by <Working figure="light.misfit" /> each; the curve goes between them
    </p>
  {/if}
</section>

<style>
  .line {
    line-height: 1.85;
  }
  .test .label {
    display: block;
    line-height: 1.3;
  }
</style>
