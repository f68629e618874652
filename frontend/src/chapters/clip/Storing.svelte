<script lang="ts">
  /** Where the pictures go meanwhile, and whether camera and motor know of each other. */
  import { number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import Tick from '../../parts/Tick.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { smearUnknown } from '../../sheet/smear';

  const sheet = theSheet();
  const beat = $derived(sheet.plan.beat);
  /** Whether something on the rig is told how long to stand still. */
  const waits = $derived(
    sheet.evaluation.programmed.length > 0 || sheet.evaluation.drives.some(({ told }) => told === 'setting')
  );
  const stalls = $derived(sheet.evaluation.stalls_at);
</script>

<section class="leading-[1.75]">
  <h3>Storing</h3>
  <p>
    buffer of <Editable path="beat.buffer_frames" label="buffer" unit="frames" />{#if beat.buffer_frames}:
      {#if stalls !== null}full after {number(stalls, 12)} frames (about
        <Working figure="buffer.estimate" />){:else}it never fills up in this shoot{/if}{:else}: the camera
      refuses a trigger while it writes{/if}
  </p>
  {#if beat.school === 'shoot-move-shoot' && sheet.plan.rig.axes.length}
    <Tick checked={beat.write_while_moving} onchange={(on) => sheet.put('beat.write_while_moving', on)}
      >the camera writes while the rig moves</Tick
    >
    {#if waits}<p>
        for a controller that waits a fixed still time: type in <Working figure="beat.still" />
      </p>{/if}
  {/if}
  <p>
    exposure over interval <Working figure="beat.share" />
    <span class="label">{sheet.evaluation.beat?.character ?? ''}</span>
  </p>
  {#if sheet.plan.rig.axes.length || beat.uncoupled}
    <Tick
      checked={!!beat.uncoupled}
      onchange={(on) => (on ? sheet.begin('beat.uncoupled') : sheet.put('beat.uncoupled', null))}
      >camera and motor each run on their own</Tick
    >
  {/if}
  {#if beat.uncoupled}
    <p>
      started <Editable path="beat.uncoupled.between_starts_s" label="between the two starts" unit="s" /> apart,
      clocks off by <Editable path="beat.uncoupled.drift_ppm" label="drift of the clocks" unit="ppm" />: start
      the camera first, then the motor. <Working figure="untied.first" /> at the start and
      <Working figure="untied.last" /> at the end are not as planned. Nothing waits for the shutter: {#if sheet.figure('beat.smear')}a
        frame is smeared by anything from none to <Working
          figure="beat.smear"
        />{:else if smearUnknown(sheet.evaluation)}a frame is smeared by anything from none to what nobody
        knows, as long as nothing near is on the drawing{:else}nothing moves now, so no frame is smeared{/if}.
    </p>
  {/if}
</section>
