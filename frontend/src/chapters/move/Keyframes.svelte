<script lang="ts">
  /** The keyframes as a table: frame, positions, whether the move stops there; and the frame at the playhead. */
  import X from '@lucide/svelte/icons/x';
  import { at } from '../../sheet/series';
  import { number, write } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import WayArrow from '../../parts/WayArrow.svelte';
  import Working from '../../parts/Working.svelte';
  import { Moment } from '../../sheet/moment.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import type { JogRig } from '../../sheet/jog.svelte';
  import { FIELD, SHOWN, stands } from './axes';
  import RigFigure from './RigFigure.svelte';
  import RigHere from './RigHere.svelte';

  /** The rig on its controller, where it has one. */
  let { rig }: { rig?: JogRig } = $props();
  const sheet = theSheet();
  const move = $derived(sheet.plan.move);
  const axes = $derived(sheet.plan.rig.axes);
  const frames = $derived(sheet.evaluation.view?.keyframes ?? []);
  const traces = $derived(sheet.evaluation.traces);
  const last = $derived(move.keyframes.length - 1);
  const moment = new Moment();
  $effect(() => moment.look(sheet.plan, sheet.playhead.at));

  const now = (name: string) => at(traces?.axes[name], sheet.playhead.at);
  const path = (index: number) => `move.keyframes.${index}`;
  const by = (index: number) => move.keyframes[index]!.when?.by ?? 'even';

  function pin(index: number, how: string) {
    const frame = (frames[index] ?? 0) + 1;
    const rate = sheet.quantity('rate')?.value ?? 25;
    const when =
      how === 'frame'
        ? { by: 'frame', frame }
        : how === 'clip'
          ? { by: 'clip', at_s: String(Math.round(((frame - 1) / rate) * 1000) / 1000) }
          : null;
    sheet.put(`${path(index)}.when`, when);
  }

  const led = (name: string) => !!move.follow?.every_frame && (name === 'pan' || name === 'tilt');
</script>

<table>
  <thead>
    <tr>
      <td></td>
      <th scope="col">frame</th>
      {#each axes as axis (axis.name)}<th scope="col"
          >{axis.name}{#if sheet.evaluation.ways[axis.name]}<span class="plus"
              >+<WayArrow way={sheet.evaluation.ways[axis.name]!} /></span
            >{/if}</th
        >{/each}
      <td></td>
    </tr>
  </thead>
  <tbody>
    {#each move.keyframes as key, i (i)}
      {@const inner = i > 0 && i < last}
      <tr>
        <th scope="row">
          <button
            type="button"
            class="go"
            title="Go to keyframe {i + 1}"
            onclick={() => sheet.playhead.to(frames[i] ?? 0)}
            >{i + 1}{i === 0 ? ' start' : i === last ? ' end' : ''}</button
          >
        </th>
        <td>
          {#if inner && key.when?.by === 'frame'}
            <Editable path="{path(i)}.when.frame" label="frame of keyframe {i + 1}" unit="" min={1} />
          {:else if inner && key.when?.by === 'clip'}
            <Editable path="{path(i)}.when.at_s" label="time of keyframe {i + 1} in the clip" unit="s" />
          {:else}{frames[i] === undefined ? '–' : number(frames[i] + 1, 12)}{/if}
        </td>
        {#each axes as axis (axis.name)}
          {@const shown = SHOWN[axis.name]}
          <td>
            {#if led(axis.name)}<span class="led" title="Worked out for each frame, as the mark is followed"
                >follows</span
              >
            {:else}
              <Editable
                path="{path(i)}.{FIELD[axis.name]}"
                label="{axis.name} at keyframe {i + 1}"
                value={stands(key, axis.name, sheet.plan)}
                unit={shown.unit}
                min={shown.min}
              />
            {/if}
          </td>
        {/each}
        <td>
          {#if inner}<button
              type="button"
              class="drop"
              aria-label="Take keyframe {i + 1} away"
              onclick={() => sheet.drop(path(i))}><X size={14} /></button
            >{/if}
        </td>
      </tr>
      {#if inner || key.hold_frames}
        <tr class="more">
          <td></td>
          <td colspan={axes.length + 2}>
            {#if inner}
              <select
                value={by(i)}
                aria-label="Keyframe {i + 1} stands"
                onchange={(e) => pin(i, e.currentTarget.value)}
              >
                <option value="frame">on its frame</option>
                <option value="clip">at a time of the clip</option>
                <option value="even">evenly between</option>
              </select>
              <select
                value={key.passing}
                aria-label="At keyframe {i + 1} the move"
                onchange={(e) => void sheet.set(`${path(i)}.passing`, e.currentTarget.value)}
              >
                <option value="through">passes through</option>
                <option value="stop">stops</option>
              </select>
            {/if}
            {#if !inner || key.passing === 'stop'}
              stands <Editable
                path="{path(i)}.hold_frames"
                label="stands at keyframe {i + 1} for"
                unit="frames"
              />
            {/if}
          </td>
        </tr>
      {/if}
    {/each}
    {#if traces}
      <tr class="now">
        <th scope="row">now</th>
        <td>{number(sheet.playhead.at + 1, 12)}</td>
        {#each axes as axis (axis.name)}
          <td>
            <Working
              figure={moment.figures[`frame.${axis.name}`]}
              shown={write(Number(now(axis.name).toFixed(SHOWN[axis.name].digits)), SHOWN[axis.name].unit)}
            />
          </td>
        {/each}
        <td></td>
      </tr>
    {/if}
    {#if rig && rig.axes.length}
      <tr>
        <th scope="row">the rig</th>
        <td></td>
        {#each axes as { name, kind } (name)}
          <td
            >{#if rig.axes.includes(name)}<RigFigure {rig} {name} linear={kind === 'linear'} />{/if}</td
          >
        {/each}
        <td></td>
      </tr>
    {/if}
  </tbody>
</table>
{#if rig && rig.axes.length}<RigHere {rig} />{/if}
<p class="add">
  <button
    type="button"
    class="link"
    disabled={!sheet.evaluation.frames}
    onclick={() => void sheet.change([{ do: 'keyframe', frame: sheet.playhead.at }])}
    >+ keyframe at the playhead</button
  >
  {#if !move.keyframes[0]!.hold_frames || !move.keyframes[last]!.hold_frames}
    <span class="stand">
      <span class="label">stand at</span>
      {#each [0, last].filter((n) => !move.keyframes[n]!.hold_frames) as n (n)}
        <button type="button" class="link" onclick={() => void sheet.set(`${path(n)}.hold_frames`, 12)}
          >{n ? 'end' : 'start'}</button
        >
      {/each}
    </span>
  {/if}
</p>

<style>
  .plus {
    margin-left: 5px;
    color: var(--second);
    font-weight: 400;
    white-space: nowrap;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    border-top: 1px solid var(--ink);
    font-size: 13px;
  }
  thead th {
    text-align: right;
    font-weight: 450;
    font-size: 12px;
    font-stretch: 88%;
    color: var(--second);
    padding: 3px 0;
  }
  tbody th {
    font-weight: 600;
    text-align: left;
    padding: 2px 0;
    white-space: nowrap;
  }
  td {
    text-align: right;
    white-space: nowrap;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  .more {
    border-top: 0;
  }
  .more td {
    text-align: left;
    font-size: 12px;
    color: var(--second);
    padding-bottom: 2px;
  }
  .go {
    font-weight: 600;
    min-height: 24px;
    min-width: 24px;
    text-align: left;
  }
  .go:hover {
    text-decoration: underline;
  }
  .drop {
    display: inline-grid;
    place-items: center;
    width: 24px;
    height: 24px;
    color: var(--second);
  }
  .drop:hover {
    color: var(--ink);
    background: var(--wash);
  }
  select {
    border: 0;
    border-bottom: 1px solid var(--hair);
    background: var(--sheet);
    color: var(--ink);
    min-height: 24px;
    font-size: 12px;
    max-width: 130px;
  }
  .now th,
  .now td {
    color: var(--second);
  }
  .led {
    font-size: 12px;
    color: var(--second);
  }
  .add {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    font-size: 13px;
    border-top: 1px solid var(--hair);
    padding-top: 4px;
  }
  .stand {
    display: inline-flex;
    gap: 8px;
    align-items: baseline;
  }
  .add .link {
    min-height: 24px;
  }
  @media (max-width: 760px) {
    .go,
    .drop,
    select {
      min-width: 44px;
      height: 44px;
    }
  }
</style>
