<script lang="ts">
  /** Within what the settings follow the light, in which order and in which steps; filters; what can be mended. */
  import { shutter } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { NAMES, type Dial } from '../../drawings/light/state.svelte';

  const sheet = theSheet();
  const light = $derived(sheet.plan.light!);
  const order = $derived(light.order ?? []);
  const filters = $derived(light.densities ?? []);
  const capped = $derived(sheet.evaluation.light.capped ?? []);
  const ORDERS: { value: string; label: string; title: string }[] = [
    {
      value: 'shutter,iso',
      label: 'shutter, ISO',
      title: 'The usual one: the aperture stays, and with it the depth of field'
    },
    { value: 'shutter', label: 'shutter', title: 'Nothing but the shutter follows the light' },
    { value: 'iso,shutter', label: 'ISO, shutter', title: 'What moves is drawn alike for as long as can be' },
    { value: 'shutter,iso,aperture', label: 'all three', title: 'The aperture last: it flickers' }
  ];
  const chosen = $derived(order.join(','));
  const known = $derived(
    ORDERS.some(({ value }) => value === chosen)
      ? ORDERS
      : [
          ...ORDERS,
          { value: chosen, label: order.map((dial) => NAMES[dial as Dial]).join(', '), title: 'as it is' }
        ]
  );
  const follows = (dial: Dial) => order.includes(dial);
</script>

<section>
  <h3>How far the settings may go</h3>
  <p class="line">
    <b class="name">shutter</b>
    {#if follows('shutter')}
      <Editable path="light.shutter_short_s" label="shortest shutter time" unit="shutter" /> to
      <Editable path="light.shutter_long_s" label="longest shutter time" unit="shutter" />
    {:else}<Editable path="beat.exposure_s" label="exposure" unit="shutter" /> throughout{/if}
    <b class="name">ISO</b>
    {#if follows('iso')}
      <Editable path="light.iso_low" label="lowest ISO" unit="" /> to
      <Editable path="light.iso_high" label="highest ISO" unit="" />
    {:else}<Editable path="camera.iso" label="ISO" unit="" /> throughout{/if}
    <br />
    <b class="name">aperture</b>
    {#if follows('aperture')}
      <Editable path="light.aperture_wide" label="widest aperture" unit="f-number" /> to
      <Editable path="light.aperture_narrow" label="narrowest aperture" unit="f-number" />
    {:else}<Editable path="camera.aperture" label="aperture" unit="f-number" /> throughout{/if}
  </p>
  <div class="ways">
    <Choice
      label="What follows the light, in which order"
      options={known}
      value={chosen}
      onchoose={(value) => sheet.put('light.order', value.split(','))}
    />
    <Choice
      label="Steps of the dials"
      options={[
        { value: 'third', label: '⅓' },
        { value: 'half', label: '½' },
        { value: 'full', label: '1 stop' }
      ]}
      value={light.step ?? 'third'}
      onchoose={(value) => sheet.put('light.step', value)}
    />
  </div>
  <p class="line">
    {#if light.stars_px === null}
      stars may trail <button type="button" class="link" onclick={() => sheet.begin('light.stars_px')}
        >hold them</button
      >
    {:else}
      a star is drawn out over <Editable path="light.stars_px" label="a star is drawn out over" unit="px" /> at
      most
      <button type="button" class="link" onclick={() => sheet.put('light.stars_px', null)}
        >let them trail</button
      >
    {/if}
    {#each capped.slice(0, 2) as cap, n (n)}
      <span class="label block"
        >frames {cap.first + 1} to {cap.last + 1}: {cap.by === 'beat' ? 'the beat leaves' : 'the stars leave'} no
        more than {shutter(cap.shutter_s)}</span
      >
    {/each}
  </p>
  <p class="line">
    the edit mends a frame up to <Editable path="light.over_stops" label="too bright" unit="stops" /> too bright
    and
    <Editable path="light.under_stops" label="too dark" unit="stops" /> too dark
  </p>
  {#if sheet.figure('light.leftover')}
    <p class="line">
      left for the edit at most <Working figure="light.leftover" />; in ten minutes at most
      <Working figure="light.pace" /> changes{#if sheet.figure('light.gap')}, <Working figure="light.gap" /> apart{/if}
    </p>
  {/if}
  <h4>
    Filters <button type="button" class="link" onclick={() => sheet.begin('light.densities')}
      >+ neutral density</button
    >
  </h4>
  {#each filters as one, n (n)}
    <p class="line">
      <Editable path="light.densities.{n}.stops" label="filter {n + 1}" unit="stops" /> from frame
      <Editable path="light.densities.{n}.first_frame" label="filter {n + 1} is put on at" unit="" /> to
      <Editable
        path="light.densities.{n}.last_frame"
        label="filter {n + 1} is taken off after"
        unit=""
        empty={one.last_frame === null ? 'the end' : ''}
      />
      <button
        type="button"
        class="link"
        aria-label="drop filter {n + 1}"
        onclick={() => sheet.drop(`light.densities.${n}`)}>drop</button
      >
    </p>
  {:else}
    <p class="label">None. One is put on or taken off as a change of its own.</p>
  {/each}
</section>

<style>
  .line {
    line-height: 1.85;
  }
  .name {
    font-weight: 600;
    margin-right: 4px;
  }
  .name:not(:first-child) {
    margin-left: 14px;
  }
  br + .name:not(:first-child) {
    margin-left: 0;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin: 4px 0;
  }
  .block {
    display: block;
    line-height: 1.3;
  }
</style>
