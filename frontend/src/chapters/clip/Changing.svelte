<script lang="ts">
  /** An interval that changes over the shoot: its segments, and what they make of the clip. */
  import { changing } from '../../sheet/frames';
  import IntervalDrawing from '../../drawings/interval/IntervalDrawing.svelte';
  import { duration, number } from '../../format';
  import { exact } from '../../parts/paths';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const pace = $derived(changing(sheet.plan));
  const most = 20;

  function put(segments: typeof pace.segments) {
    void sheet.apply([{ path: 'frames.segments', value: segments }]);
  }
  /** Two halves of a segment, so that the shoot keeps its length. */
  function split(at: number) {
    const one = pace.segments[at];
    if (!one) return;
    const half = String(exact(one.length_s) / 2);
    put(
      pace.segments.flatMap((other, i) =>
        i === at
          ? [
              { ...one, length_s: half },
              { ...one, length_s: half }
            ]
          : [other]
      )
    );
  }
  function drop(at: number) {
    if (pace.segments.length <= 2) void sheet.change([{ do: 'changing', on: false }]);
    else put(pace.segments.filter((_, i) => i !== at));
  }
</script>

{#if pace.segments.length}
  <div class="both">
    <div>
      <h3>Segments</h3>
      <table>
        <thead>
          <tr>
            <td></td>
            <th scope="col">for</th>
            <th scope="col">one frame every</th>
            <th scope="col">frames</th>
            <th scope="col">faster by</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          {#each pace.segments.keys() as i (i)}
            <tr>
              <th scope="row">{i + 1}</th>
              <td>
                <Editable path="frames.segments.{i}.length_s" label="length of segment {i + 1}" unit="s" />
              </td>
              <td>
                <Editable
                  path="frames.segments.{i}.interval_s"
                  label="interval of segment {i + 1}"
                  unit="s"
                />
              </td>
              <td
                ><Working
                  figure="clip.segment.{i}.frames"
                  shown={number(sheet.figure(`clip.segment.${i}.frames`)?.value ?? 0, 12)}
                /></td
              >
              <td><Working figure="clip.segment.{i}.speed_up" /></td>
              <td class="tools">
                <button
                  type="button"
                  class="link"
                  disabled={pace.segments.length >= most}
                  onclick={() => split(i)}>split</button
                >
                <button type="button" class="link" onclick={() => drop(i)}>drop</button>
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="line">
        blended over <Editable path="frames.blend_frames" label="blended over" unit="frames" /> around each change,
        each frame longer or shorter by the same ratio
      </p>
      <p class="line">
        In all <Working figure="clip.frames" /> in <Working figure="clip.shoot" />, finished at
        <Working figure="time.finish" />.
        {#each sheet.evaluation.clip.rounding as note (note.quantity)}
          Whole frames and blending make it {duration(Math.abs(note.got - note.asked))}
          {note.got > note.asked ? 'longer' : 'shorter'} than the segments add up to.
        {/each}
      </p>
      <button
        type="button"
        class="act quiet"
        onclick={() => void sheet.change([{ do: 'changing', on: false }])}>One even interval again</button
      >
    </div>
    <div>
      <h3>
        Clip time against real time
        <span class="label">steep: the clip dwells; flat: time is pressed hard; dotted: an even interval</span
        >
      </h3>
      <IntervalDrawing />
    </div>
  </div>
  <p class="label">The boundaries can also be dragged on the span below.</p>
{:else}
  <p class="none">
    The interval is the same from first to last frame. It may also change: long while nothing happens, short
    when it gets interesting. Easing of the move stays in frames, so the move slows down or speeds up with it.
  </p>
  <button type="button" class="act" onclick={() => void sheet.change([{ do: 'changing', on: true }])}
    >Let the interval change</button
  >
{/if}

<style>
  .both {
    display: grid;
    grid-template-columns: minmax(330px, 1fr) 1.3fr;
    gap: 34px;
  }
  table {
    width: 100%;
  }
  thead th {
    font-size: 12px;
    font-stretch: 88%;
    font-weight: 450;
    color: var(--second);
    text-align: left;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  th,
  td {
    padding: 5px 8px 5px 0;
    text-align: left;
  }
  .tools {
    display: flex;
    gap: 12px;
    font-size: 13px;
  }
  .tools button {
    min-height: 24px;
  }
  .line {
    font-size: 13px;
    line-height: 1.75;
    margin: 6px 0;
  }
  h3 .label {
    display: block;
    font-weight: 450;
  }
  .none {
    max-width: 62ch;
    margin: 8px 0 14px;
  }
  @media (max-width: 760px) {
    .both {
      grid-template-columns: 1fr;
    }
    .tools button {
      min-height: 44px;
    }
  }
</style>
