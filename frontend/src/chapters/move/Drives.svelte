<script lang="ts">
  /** What each drive is told, the program and tables to take along, jogging and capturing, and the limits of the axes. */
  import Take from '../../parts/Take.svelte';
  import { exact } from '../../parts/paths';
  import { onMount } from 'svelte';
  import { number, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { FIELD, SHOWN } from './axes';
  import MarksToSet from './MarksToSet.svelte';

  const sheet = theSheet();
  const rig = new JogRig(sheet);
  onMount(() => void rig.look());
  const axes = $derived(sheet.plan.rig.axes);
  const move = $derived(sheet.plan.move);
  const told = $derived(sheet.evaluation.drives);
  const control = $derived(sheet.plan.rig.controller);
  const hand = $derived(told.filter((one) => one.drive === 'scale').map((one) => one.axis));
  const frames = $derived(sheet.evaluation.view?.keyframes ?? []);
  const STEPS = { mm: [0.1, 1, 10, 100], deg: [0.1, 1, 5, 20] } as const;
  let step = $state(1);
  const referenced = (name: string) => rig.state?.at[name as keyof typeof rig.state.at] !== undefined;
  const all = $derived(axes.length > 0 && axes.every((axis) => referenced(axis.name)));
  const LETTERS = ['X', 'Y', 'Z', 'A', 'B', 'C'];
  const USUAL: Record<string, string> = { slide: 'X', pan: 'Y', tilt: 'Z', roll: 'A', focus: 'B', zoom: 'C' };
  const unit = (kind: string) => (kind === 'linear' ? ('mm' as const) : ('deg' as const));
  const rows = [
    { key: 'low', label: 'reaches from', unit: (u: string) => u },
    { key: 'high', label: 'to', unit: (u: string) => u },
    { key: 'top_speed', label: 'top speed', unit: (u: string) => `${u}/s` },
    { key: 'acceleration', label: 'acceleration', unit: (u: string) => `${u}/s²` },
    { key: 'backlash', label: 'backlash', unit: (u: string) => u }
  ] as const;

  function capture(frame: number) {
    if (rig.state) void sheet.change([{ do: 'keyframe', frame, stands: rig.state.stands }]);
  }

  function goTo(index: number) {
    const key = move.keyframes[index]!;
    const amounts: Partial<Record<'slide' | 'pan' | 'tilt' | 'roll', number>> = {};
    for (const axis of axes)
      if (axis.name !== 'focus' && axis.name !== 'zoom') amounts[axis.name] = key[FIELD[axis.name]] ?? 0;
    void rig.go(amounts);
  }
</script>

<div class="drives">
  <section>
    <h3>What the drives are told</h3>
    <table class="told">
      <tbody>
        {#each axes as axis (axis.name)}
          {@const one = told.find((each) => each.axis === axis.name)}
          <tr>
            <th scope="row">{axis.name}</th>
            <td
              >{one
                ? `${one.drive}: ${one.words}`
                : 'no card in the rig says what drives it; it is told its positions'}</td
            >
          </tr>
        {:else}
          <tr><td>Nothing moves on this rig.</td></tr>
        {/each}
      </tbody>
    </table>
    {#if axes.length}
      <h3>To take along</h3>
      <p class="files">
        <Take shoot={sheet.id} format="program" />
        <Take shoot={sheet.id} format="steps" />
        <Take shoot={sheet.id} format="frames" />
      </p>
      <p class="row">
        The camera is fired by a
        <Choice
          label="Output that fires the camera"
          options={[
            { value: 'digital output', label: 'digital output' },
            { value: 'coolant output', label: 'coolant output' }
          ]}
          value={control?.shutter ?? 'digital output'}
          onchoose={(shutter) => void sheet.set('rig.controller.shutter', shutter)}
        />
        for <Editable
          path="rig.controller.pulse_s"
          label="length of the pulse"
          value={exact(control?.pulse_s ?? '1/5')}
          unit="s"
          exactText
        />
      </p>
      <p class="row">
        <button
          type="button"
          class="act quiet"
          disabled={rig.busy || !sheet.evaluation.frames}
          onclick={() => void rig.rehearse()}>Rehearse the program</button
        >
        <span class="label">on the simulated controller, the very text that is taken along</span>
      </p>
      {#if rig.wrong}<p role="alert">{rig.wrong}</p>{/if}
      {#if rig.rehearsal}
        {@const done = rig.rehearsal}
        <div class="outcome" role="status">
          <p>
            <b>{number(done.pictures, 12)} pictures fired</b>, each once, in {write(done.ends_s, 's')}; never
            more than
            {write(done.late_s, 's')} from when they were due. {number(done.lines, 12)} lines.
          </p>
          <dl>
            {#each axes as axis (axis.name)}
              <div>
                <dt>{axis.name}, off its place</dt>
                <dd>
                  {number(done.off_steps[axis.name] ?? 0, 2)} steps at most, {write(
                    done.fastest[axis.name] ?? 0,
                    'share'
                  )} of its top speed
                </dd>
              </div>
            {/each}
          </dl>
          <details>
            <summary>How it begins</summary>
            <pre>{done.opening}</pre>
          </details>
        </div>
      {/if}
      <MarksToSet axes={hand.length ? hand : axes.map((axis) => axis.name)} />
    {/if}
  </section>
  <section>
    {#if axes.length}
      <h3>Jog and capture</h3>
      <p class="mono-note">
        A simulated controller stands in for yours. Like a real one it forgets where it stands when it is
        switched off: reference it, jog until the framing is right, and take that as a keyframe. Hands off
        while it moves.
      </p>
      <p class="row">
        <button
          type="button"
          class="act quiet"
          disabled={rig.busy}
          onclick={() => void rig.reference(axes.map((axis) => axis.name))}
          >{all ? 'Reference again' : 'Reference all axes'}</button
        >
        <span class="label" role="status">{rig.said}</span>
      </p>
      <table class="jog">
        <tbody>
          {#each axes as axis (axis.name)}
            {@const at = rig.state?.at[axis.name]}
            <tr>
              <th scope="row">{axis.name}</th>
              <td>
                <button
                  type="button"
                  aria-label="Jog the {axis.name} down"
                  disabled={rig.busy || !referenced(axis.name)}
                  onclick={() => void rig.by(axis.name, -STEPS[unit(axis.kind)][step]!)}>−</button
                >
                <button
                  type="button"
                  aria-label="Jog the {axis.name} up"
                  disabled={rig.busy || !referenced(axis.name)}
                  onclick={() => void rig.by(axis.name, STEPS[unit(axis.kind)][step]!)}>+</button
                >
              </td>
              <td class="at"
                >{at === undefined
                  ? 'not known'
                  : write(Number(at.toFixed(3)), unit(axis.kind))}{rig.state?.at_end.includes(axis.name)
                  ? ', at its end'
                  : ''}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="row">
        <span class="label">a step is</span>
        <Choice
          label="Size of a step"
          options={STEPS.mm.map((mm, n) => ({ value: String(n), label: `${mm} mm · ${STEPS.deg[n]}°` }))}
          value={String(step)}
          onchoose={(value) => (step = Number(value))}
        />
      </p>
      <p class="files">
        {#each move.keyframes.keys() as n (n)}
          <span class="pair">
            <button type="button" class="link" disabled={!all || rig.busy} onclick={() => goTo(n)}
              >go to {n + 1}</button
            >
            <button
              type="button"
              class="link"
              disabled={!all || !sheet.evaluation.frames}
              onclick={() => capture(frames[n] ?? 0)}>take as {n + 1}</button
            >
          </span>
        {/each}
        <button
          type="button"
          class="link"
          disabled={!all || !sheet.evaluation.frames}
          onclick={() => capture(sheet.playhead.at)}
          >take at the playhead, frame {number(sheet.playhead.at + 1, 12)}</button
        >
      </p>
      <h3>The axes</h3>
      <table class="limits">
        <thead
          ><tr
            ><td></td>{#each axes as axis (axis.name)}<th scope="col">{axis.name}</th>{/each}</tr
          ></thead
        >
        <tbody>
          <tr>
            <th scope="row">letter in the program</th>
            {#each axes as axis, index (axis.name)}
              <td>
                <select
                  aria-label="letter of the {axis.name}"
                  value={axis.letter ?? USUAL[axis.name]}
                  onchange={(e) => void sheet.set(`rig.axes.${index}.letter`, e.currentTarget.value)}
                >
                  {#each LETTERS as letter (letter)}<option>{letter}</option>{/each}
                </select>
              </td>
            {/each}
          </tr>
          {#each rows as row (row.key)}
            <tr>
              <th scope="row">{row.label}</th>
              {#each axes as axis, index (axis.name)}
                <td>
                  <Editable
                    path="rig.axes.{index}.{row.key}"
                    label="{axis.name} {row.label}"
                    value={axis[row.key] ?? 0}
                    unit={row.unit(unit(axis.kind))}
                    min={row.key === 'top_speed' || row.key === 'acceleration'
                      ? 0.1
                      : row.key === 'backlash'
                        ? 0
                        : -1e6}
                  />
                </td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
      {#each axes.filter((axis) => axis.name === 'focus' || axis.name === 'zoom') as axis (axis.name)}
        {@const index = axes.indexOf(axis)}
        <h4>Ring of the {axis.name}: turned by, set to</h4>
        <p class="files">
          {#each axis.ring ?? [] as mark, n (n)}
            <span class="pair"
              ><Editable
                path="rig.axes.{index}.ring.{n}.turn_deg"
                label="turn at mark {n + 1}"
                value={mark.turn_deg}
                unit="deg"
                min={-1e6}
              />
              <Editable
                path="rig.axes.{index}.ring.{n}.value_mm"
                label="set to at mark {n + 1}"
                value={mark.value_mm}
                unit={SHOWN[axis.name].unit}
                min={1}
              /></span
            >
          {:else}
            <button
              type="button"
              class="link"
              onclick={() =>
                void sheet.apply([
                  {
                    path: `rig.axes.${index}.ring`,
                    value:
                      axis.name === 'zoom'
                        ? [
                            { turn_deg: 0, value_mm: 24 },
                            { turn_deg: 90, value_mm: 70 }
                          ]
                        : [
                            { turn_deg: 0, value_mm: 500 },
                            { turn_deg: 90, value_mm: 10000 }
                          ]
                  }
                ])}>read the marks off the lens</button
            >
          {/each}
        </p>
      {/each}
    {/if}
  </section>
</div>

<style>
  .drives {
    display: grid;
    grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
    gap: 30px;
    font-size: 13px;
  }
  h3 {
    border-top: 1px solid var(--ink);
    padding-top: 4px;
    margin: 14px 0 4px;
    font-size: 14px;
  }
  h3:first-child {
    margin-top: 0;
  }
  h4 {
    font-weight: 600;
    margin-top: 8px;
  }
  .files,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    align-items: center;
    margin: 6px 0;
  }
  .pair {
    display: inline-flex;
    gap: 8px;
  }
  .link {
    min-height: 24px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  tr {
    border-bottom: 1px solid var(--hair);
  }
  tbody th {
    text-align: left;
    font-weight: 600;
    padding: 3px 10px 3px 0;
    vertical-align: top;
  }
  .limits tbody th {
    font-weight: 450;
    color: var(--second);
  }
  .limits thead th {
    text-align: right;
    font-weight: 600;
  }
  .limits td {
    text-align: right;
  }
  .jog button {
    width: 44px;
    height: 32px;
    border: 1px solid var(--ink);
    font-size: 16px;
  }
  .jog button:hover:not(:disabled) {
    background: var(--wash);
  }
  .at {
    text-align: right;
    font-weight: 600;
  }
  .outcome {
    border-left: 3px solid var(--ink);
    padding-left: 12px;
    margin: 8px 0;
  }
  dl div {
    display: flex;
    justify-content: space-between;
  }
  dt {
    color: var(--second);
  }
  summary {
    cursor: pointer;
    min-height: 24px;
  }
  pre {
    max-height: 220px;
    overflow: auto;
    font-size: 12px;
    line-height: 1.4;
    background: var(--wash);
    padding: 8px 10px;
  }
  select {
    border: 0;
    border-bottom: 1px solid var(--ink);
    background: var(--sheet);
    color: var(--ink);
    min-height: 26px;
  }
  @media (max-width: 1000px) {
    .drives {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media (max-width: 760px) {
    .jog button {
      width: 64px;
      height: 48px;
    }
    .link {
      min-height: 44px;
    }
  }
</style>
