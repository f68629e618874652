<script lang="ts">
  /** The framing: plan and side drawing, the finder, the keyframes, the ease, and what the picture suffers. */
  import { onMount } from 'svelte';
  import type { Edit } from '../../api/client';
  import Finder from '../../drawings/finder/Finder.svelte';
  import Pace from '../../drawings/pace/Pace.svelte';
  import PlanDrawing from '../../drawings/plan/PlanDrawing.svelte';
  import SideView from '../../drawings/side/SideView.svelte';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Keyframes from './Keyframes.svelte';
  import Suffers from './Suffers.svelte';

  const sheet = theSheet();
  const move = $derived(sheet.plan.move);
  const axes = $derived(sheet.plan.rig.axes);
  let big = $state(false);
  const rig = new JogRig(sheet);
  onMount(() => void rig.look());

  const ENDS = ['in', 'out'] as const;
  const inSeconds = $derived(move.ease_in_s !== null || move.ease_out_s !== null);

  function easeBy(unit: 'frames' | 'clip') {
    const seconds = (end: 'in' | 'out') => String(sheet.figure(`move.ease_${end}`)?.value.toFixed(2) ?? '1');
    const frames = (end: 'in' | 'out') =>
      Math.round((sheet.figure(`move.ease_${end}`)?.value ?? 0) * (sheet.quantity('rate')?.value ?? 0));
    void sheet.apply(
      ENDS.flatMap<Edit>((end) =>
        unit === 'clip'
          ? [{ path: `move.ease_${end}_s`, value: seconds(end) }]
          : [
              { path: `move.ease_${end}_frames`, value: frames(end) },
              { path: `move.ease_${end}_s`, value: null }
            ]
      )
    );
  }
</script>

<div class="framing" class:big>
  <div class="drawing">
    {#if big}<Finder big onbig={() => (big = false)} /><SideView />
    {:else}
      <PlanDrawing height={374} {rig} />
      <SideView />
    {/if}
  </div>
  <div class="side">
    {#if big}<PlanDrawing height={250} {rig} />{:else}<Finder onbig={() => (big = true)} />{/if}
    {#if axes.length}
      <Keyframes {rig} />
      <h3>
        Ease
        <span class="label">
          {#if sheet.figure('move.ease_in')}<Working figure="move.ease_in" /> in, <Working
              figure="move.ease_out"
            /> out{/if}
        </span>
      </h3>
      <Pace />
      <div class="eases">
        {#each ENDS as end (end)}
          {#if inSeconds}
            <Editable path="move.ease_{end}_s" label="ease {end}, in seconds of clip" unit="s" />
          {:else}
            <Editable path="move.ease_{end}_frames" label="ease {end}" unit="frames" />
          {/if}
          {#if end === 'in'}<span class="label">in, out</span>{/if}
        {/each}
      </div>
      <div class="ways">
        <Choice
          label="Ease is counted in"
          options={[
            { value: 'frames', label: 'frames' },
            { value: 'clip', label: 'clip seconds' }
          ]}
          value={inSeconds ? 'clip' : 'frames'}
          onchoose={easeBy}
        />
        <Choice
          label="Curve of the ease"
          options={[
            { value: 'constant', label: 'even', title: 'Constant acceleration' },
            {
              value: 's-curve',
              label: 'soft',
              title: 'S-curve: one and a half times the peak acceleration, no jerk'
            }
          ]}
          value={move.curve ?? 'constant'}
          onchoose={(curve) => void sheet.set('move.curve', curve)}
        />
      </div>
    {:else}
      <p class="mono-note still">
        Nothing moves on this rig. Put something on that does, in the chapter Rig; or crop a move from the
        picture, under “The picture”.
      </p>
    {/if}
    <Suffers />
  </div>
</div>

<style>
  .framing {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 316px;
    gap: 20px;
  }
  .big {
    grid-template-columns: minmax(0, 1fr) 270px;
  }
  h3 {
    margin-top: 8px;
    border-top: 1px solid var(--ink);
    padding-top: 4px;
  }
  h3 .label {
    margin-left: 8px;
    font-weight: 450;
  }
  .eases {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    margin-top: 2px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin: 4px 0 8px;
  }
  .still {
    margin: 10px 0;
  }
  @media (max-width: 1000px) {
    .framing,
    .big {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media (max-width: 760px) {
    .framing:not(.big) {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    .framing:not(.big) .side {
      display: contents;
    }
  }
</style>
