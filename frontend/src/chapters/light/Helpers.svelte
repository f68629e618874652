<script lang="ts">
  /** What is worked out beside the ramp: brighter by which, filters, stars, sharpness, close-up, lamps, dew. */
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  /** The keyframe whose focus is told. */
  const FIRST = 0;
  const light = $derived(sheet.plan.light!);
  const camera = $derived(sheet.plan.camera!);
  const has = (key: string) => !!sheet.figure(key);
</script>

<div class="leaf cols">
  <section>
    <h3>One stop brighter</h3>
    <p class="line">
      expose <Working figure="help.brighter.shutter" />, or ISO <Working figure="help.brighter.iso" />, or
      open to
      <Working figure="help.brighter.aperture" />: each of them twice the light. The shutter draws out what
      moves, ISO costs noise, the aperture costs depth.
    </p>
    {#if has('help.density')}
      <p class="line">
        To expose half the interval, so that what moves flows: a filter of <Working figure="help.density" />.
      </p>
    {/if}
    {#if has('light.even.from')}
      <h3>Lamps and sky</h3>
      <p class="line">
        They lie within a stop of one another from <Working figure="light.even.from" /> to
        <Working figure="light.even.to" />: lamps do not burn out yet, and the sky is not black.
      </p>
    {/if}
    <h3>Lamps on the mains</h3>
    <p class="line">
      steady at 50 Hz with <Working figure="help.mains.50" />, at 60 Hz with <Working
        figure="help.mains.60"
      />
    </p>
    <Choice
      label="What the lamps hang on"
      options={[
        { value: '50', label: '50 Hz' },
        { value: '60', label: '60 Hz' },
        { value: 'none', label: 'no mains' }
      ]}
      value={light.mains_hz ? String(light.mains_hz) : 'none'}
      onchoose={(value) => sheet.put('light.mains_hz', value === 'none' ? null : Number(value))}
    />
    <p class="line">
      lamps of <Editable path="light.lamp_k" label="colour temperature of the lamps" unit="K" /> and daylight, equally
      bright, make <Working figure="help.mixed" />: fix the white balance there, or choose one and let the
      other go blue or orange.
    </p>
  </section>
  <section>
    <h3>Stars</h3>
    {#if has('help.stars')}
      <p class="line big"><Working figure="help.stars" /> keep them points in this framing</p>
      <Choice
        label="Where stars have to stay points"
        options={[
          { value: 'centre', label: 'centre' },
          { value: 'middle', label: 'middle two thirds' },
          { value: 'corner', label: 'corners' }
        ]}
        value={light.stars_in ?? 'middle'}
        onchoose={(part) => sheet.put('light.stars_in', part)}
      />
    {:else}
      <p class="line">
        For this framing it is worked out once place and bearing are known, and sky is in the picture.
      </p>
    {/if}
    <Rows>
      <FigureRow label="at the centre" figure="help.stars.centre" />
      <FigureRow label="in the middle two thirds" figure="help.stars.middle" />
      <FigureRow label="out to the corners" figure="help.stars.corner" />
      {#if sheet.figure('help.stars.drawn')}
        <FigureRow label={sheet.figure('help.stars.drawn')!.label} figure="help.stars.drawn" />
      {/if}
      <FigureRow label="500 rule" figure="help.stars.500" />
      <FigureRow label="by aperture and pixels" figure="help.stars.pixels" />
    </Rows>
    <p class="label">
      The quick rules know neither where in the sky you look nor how large it is shown; they are here to be
      compared.
    </p>
    <h3>Dew</h3>
    <p class="line">
      air at <Editable path="light.air_c" label="air" unit="°C" min={-60} empty="not known" />, humidity
      <Editable path="light.humidity" label="humidity" unit="share" empty="not known" />{#if has('help.dew')}:
        dew point <Working figure="help.dew" />{/if}
    </p>
    <Tick checked={light.heater ?? false} onchange={(on) => sheet.put('light.heater', on)}
      >the lens is warmed</Tick
    >
  </section>
  <section>
    <h3>Sharp from, sharp to</h3>
    <p class="line">
      <Editable path="camera.focal_mm" label="focal length" unit="focal" /> at
      <Editable path="camera.aperture" label="aperture" unit="f-number" />, circle of confusion
      {#if has('help.circle')}<Working figure="help.circle" />, as the sensor has it (or
        <Editable path="camera.circle_mm" label="circle of confusion" unit="focal" empty="your own" />){:else}
        <Editable path="camera.circle_mm" label="circle of confusion" unit="focal" />{/if}, focused at
      <Editable path="move.keyframes.{FIRST}.focus_mm" label="focused at" unit="mm" />
    </p>
    <Rows>
      <FigureRow label="sharp from" figure="help.near" />
      {#if has('help.far')}<FigureRow label="sharp to" figure="help.far" />
      {:else}<Row label="sharp to">infinity</Row>{/if}
      <FigureRow label="hyperfocal distance" figure="help.hyperfocal" />
      {#if has('help.close')}
        <FigureRow label="magnification" figure="help.scale" />
        <FigureRow label="depth, close up" figure="help.close" />
        <FigureRow label="may grow this far before it is soft" figure="help.close.grows" />
      {/if}
    </Rows>
    <h3>A fixed lens screwed out</h3>
    <p class="line">
      by <Editable path="camera.extension_mm" label="screwed out by" unit="focal" empty="not at all" />, its
      thread
      <Editable path="camera.thread_mm" label="one turn of the thread" unit="focal" /> a turn
    </p>
    {#if camera.extension_mm}
      <p class="line">
        that is <Editable
          path="camera.turns"
          label="turns of the thread"
          value={sheet.figure('help.out.turns')?.value ?? null}
          unit=""
        /> turns, and sharp <Editable
          path="camera.subject_mm"
          label="subject in front of the lens"
          value={sheet.figure('help.out.subject')?.value ?? null}
          unit="mm"
        /> in front of it: set whichever you know
      </p>
    {/if}
    <Rows>
      <FigureRow label="turns" figure="help.out.turns" />
      <FigureRow label="magnification" figure="help.out.scale" />
      <FigureRow label="subject in front of the lens" figure="help.out.subject" />
      <FigureRow label="depth" figure="help.out.depth" />
      <FigureRow label="may grow this far before it is soft" figure="help.out.depth.grows" />
    </Rows>
    {#if camera.extension_mm}
      <p class="label">
        Measure to the subject, not to the lid over it; look at the focus again after the last screw.
      </p>
    {/if}
  </section>
</div>

<style>
  .cols {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 0 30px;
  }
  .line {
    line-height: 1.8;
  }
  .big {
    font-size: 17px;
  }
  @media (max-width: 1000px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
