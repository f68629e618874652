<script lang="ts">
  /** Where the camera goes: two keyframes on the plan drawing, the pace between them, and the limits. */
  import Pace from '../drawings/pace/Pace.svelte';
  import PlanDrawing from '../drawings/plan/PlanDrawing.svelte';
  import { number, write } from '../format';
  import Editable from '../parts/Editable.svelte';
  import Working from '../parts/Working.svelte';
  import { sample } from '../drawings/span/geometry';
  import { Moment } from '../sheet/moment.svelte';
  import { theSheet } from '../sheet/sheet.svelte';

  const sheet = theSheet();
  const move = $derived(sheet.plan.move);
  const axes = $derived(sheet.plan.rig.axes);
  const traces = $derived(sheet.told.traces);
  const frames = $derived(sheet.told.frames);
  const ends = ['start', 'end'] as const;
  const moment = new Moment();
  $effect(() => moment.look(sheet.plan, sheet.playhead.at));
  const rows = $derived([
    { key: 'low', label: 'reaches from', unit: (unit: string) => unit },
    { key: 'high', label: 'to', unit: (unit: string) => unit },
    { key: 'top_speed', label: 'top speed', unit: (unit: string) => `${unit}/s` },
    { key: 'acceleration', label: 'acceleration', unit: (unit: string) => `${unit}/s²` }
  ] as const);
  const now = (name: string) =>
    traces ? sample(traces.frames, traces.axes[name] ?? [], sheet.playhead.at) : 0;
  /** The move runs between the handles. */
  function frameOf(end: 'start' | 'end'): string {
    const clip = sheet.plan.clip;
    if (end === 'start') return number(clip.handle_in_frames + 1, 12);
    return frames ? number(frames - clip.handle_out_frames, 12) : '–';
  }
  const unit = (kind: string) => (kind === 'linear' ? 'mm' : 'deg');

  function addMark() {
    const rail = axes.find((axis) => axis.name === 'slide') ?? { low: 0, high: 900 };
    const name = `mark ${move.marks.length + 1}`;
    const mark = {
      name,
      x_mm: Math.round((rail.low + rail.high) / 2),
      y_mm: Math.round((rail.high - rail.low) * 0.9)
    };
    void sheet.apply([{ path: 'move.marks', value: [...move.marks, mark] }]);
  }

  function dropMark(index: number) {
    void sheet.apply([{ path: 'move.marks', value: move.marks.filter((_, at) => at !== index) }]);
  }

  function aim(index: number) {
    const edits = ends.flatMap((end) => {
      const pan = sheet.figure(`move.aim.${index}.${end}`)?.value;
      return pan === undefined ? [] : [{ path: `move.${end}.pan_deg`, value: Number(pan.toFixed(2)) }];
    });
    void sheet.apply(edits);
  }
</script>

<section class="move">
  <div class="drawing">
    <h2>{axes.length ? `Two keyframes, ${axes.map((axis) => axis.name).join(' and ')}` : 'Nothing moves'}</h2>
    <p class="label">
      Seen from above, to scale. Drag a box, a knob or a mark, or move it with the arrow keys.
    </p>
    <PlanDrawing />
  </div>

  <div class="side">
    <table>
      <thead>
        <tr
          ><td></td><th scope="col">frame</th>{#each axes as axis (axis.name)}<th scope="col">{axis.name}</th
            >{/each}</tr
        >
      </thead>
      <tbody>
        {#each ends as end, i (end)}
          <tr>
            <th scope="row">{i + 1} {end}</th>
            <td>{frameOf(end)}</td>
            {#each axes as axis (axis.name)}
              {@const field = axis.name === 'slide' ? ('slide_mm' as const) : ('pan_deg' as const)}
              <td>
                <Editable
                  path="move.{end}.{field}"
                  label="{axis.name} at the {end}"
                  value={move[end][field]}
                  unit={unit(axis.kind)}
                  min={axis.name === 'slide' ? -1e6 : -3600}
                />
              </td>
            {/each}
          </tr>
        {/each}
        {#if traces}
          <tr class="now">
            <th scope="row">now</th>
            <td>{number(sheet.playhead.at + 1, 12)}</td>
            {#each axes as axis (axis.name)}
              <td>
                <Working
                  figure={moment.figures[`frame.${axis.name}`]}
                  shown={write(
                    Number(now(axis.name).toFixed(axis.name === 'slide' ? 1 : 2)),
                    unit(axis.kind)
                  )}
                />
              </td>
            {/each}
          </tr>
        {/if}
      </tbody>
    </table>

    <h3>
      Ease <span class="label">
        {#if sheet.figure('move.ease_in')}
          <Working figure="move.ease_in" /> and <Working figure="move.ease_out" /> of the clip
        {/if}
      </span>
    </h3>
    <Pace />
    <p class="eases">
      <Editable path="move.ease_in_frames" label="ease in" value={move.ease_in_frames} unit="frames" />
      <span class="label">in, out</span>
      <Editable path="move.ease_out_frames" label="ease out" value={move.ease_out_frames} unit="frames" />
    </p>

    <dl>
      {#each axes as axis (axis.name)}
        <div>
          <dt>{axis.name === 'slide' ? 'slide travels' : 'pan turns'}</dt>
          <dd><Working figure="move.{axis.name}.distance" /></dd>
        </div>
        <div>
          <dt>at cruise</dt>
          <dd><Working figure="move.{axis.name}.cruise" /></dd>
        </div>
      {/each}
      <div>
        <dt>longest step takes</dt>
        <dd><Working figure="beat.move" /></dd>
      </div>
      <div>
        <dt>
          field of view at
          <Editable
            path="camera.focal_mm"
            label="focal length"
            value={sheet.plan.camera.focal_mm}
            unit="focal"
            min={1}
          />
        </dt>
        <dd><Working figure="view.across" /></dd>
      </div>
    </dl>

    <h3 class="marks">Marks <button type="button" class="link add" onclick={addMark}>+ a mark</button></h3>
    {#each move.marks as mark, index (index)}
      <div class="mark">
        <input
          class="field"
          value={mark.name}
          aria-label="name of mark {index + 1}"
          maxlength="120"
          onchange={(event) => void sheet.type(`move.marks.${index}.name`, event.currentTarget.value)}
        />
        <button
          type="button"
          class="link"
          onclick={() => aim(index)}
          title="Pan so that both ends point at the {mark.name}">aim both ends</button
        >
        <button type="button" class="link" aria-label="take away {mark.name}" onclick={() => dropMark(index)}
          >take away</button
        >
        <span class="where">
          <Editable
            path="move.marks.{index}.x_mm"
            label="{mark.name}, along the rail"
            value={mark.x_mm}
            unit="mm"
            min={-1e6}
          />
          <span class="label">along</span>
          <Editable
            path="move.marks.{index}.y_mm"
            label="{mark.name}, away from the rail"
            value={mark.y_mm}
            unit="mm"
            min={1}
          />
          <span class="label">off the rail</span>
        </span>
        {#if sheet.troubles.get(`move.marks.${index}.name`)}
          <span role="alert">{sheet.troubles.get(`move.marks.${index}.name`)}</span>
        {/if}
      </div>
    {:else}
      <p class="mono-note">
        No mark yet. A mark is something named in the scene that the ends can be aimed at.
      </p>
    {/each}

    <details>
      <summary>Limits of the axes</summary>
      <table>
        <thead>
          <tr
            ><td></td>{#each axes as axis (axis.name)}<th scope="col">{axis.name}</th>{/each}</tr
          >
        </thead>
        <tbody>
          {#each rows as row (row.key)}
            <tr>
              <th scope="row">{row.label}</th>
              {#each axes as axis, index (axis.name)}
                <td>
                  <Editable
                    path="rig.axes.{index}.{row.key}"
                    label="{axis.name} {row.label}"
                    value={axis[row.key]}
                    unit={row.unit(unit(axis.kind))}
                    min={row.key === 'top_speed' || row.key === 'acceleration' ? 0.1 : -1e6}
                  />
                </td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </details>
    <p class="sr-only" aria-live="polite">
      {write(move.start.slide_mm, 'mm')} to {write(move.end.slide_mm, 'mm')}
    </p>
  </div>
</section>

<style>
  .move {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 300px;
    gap: 20px;
    padding: 18px 22px 12px 30px;
  }
  h3 {
    margin-top: 12px;
    border-top: 1px solid var(--ink);
    padding-top: 6px;
  }
  h3 .label {
    margin-left: 8px;
    font-weight: 450;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    border-top: 1px solid var(--ink);
  }
  th {
    font-weight: 450;
    text-align: left;
  }
  thead th {
    text-align: right;
    font-size: 12px;
    font-stretch: 88%;
    color: var(--second);
    padding: 4px 0;
  }
  tbody th {
    font-weight: 600;
    padding: 5px 0;
  }
  td {
    text-align: right;
  }
  tbody tr {
    border-bottom: 1px solid var(--hair);
  }
  .now th,
  .now td {
    color: var(--second);
  }
  .eases {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    margin-top: 4px;
  }
  dl {
    margin-top: 10px;
    border-top: 1px solid var(--ink);
    padding-top: 6px;
  }
  dl div {
    display: flex;
    align-items: center;
    justify-content: space-between;
    font-size: 13px;
  }
  dt {
    color: var(--second);
  }
  dt :global(.editable) {
    color: var(--ink);
  }
  .marks {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }
  .add {
    font-weight: 450;
    font-size: 13px;
    min-height: 24px;
  }
  .mark {
    display: grid;
    grid-template-columns: 1fr auto auto;
    align-items: baseline;
    gap: 4px 10px;
    font-size: 13px;
    padding: 4px 0 6px;
    border-bottom: 1px solid var(--hair);
  }
  .where {
    grid-column: 1 / -1;
  }
  .mark .field {
    border-bottom-color: transparent;
    font-weight: 600;
    padding-left: 0;
  }
  .mark .field:hover,
  .mark .field:focus {
    border-bottom-color: var(--ink);
  }
  .mark button {
    min-height: 24px;
    text-align: right;
  }
  details {
    margin-top: 12px;
    border-top: 1px solid var(--ink);
    padding-top: 6px;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 24px;
  }
  @media (max-width: 1000px) {
    .move {
      grid-template-columns: minmax(0, 1fr);
      padding: 14px 16px;
    }
  }
</style>
