<script lang="ts">
  /** What stands on the drawing: place, height, size; which mark is followed; two aims; when each is in the picture. */
  import X from '@lucide/svelte/icons/x';
  import type { Edit } from '../../api/client';
  import PlanDrawing from '../../drawings/plan/PlanDrawing.svelte';
  import SideView from '../../drawings/side/SideView.svelte';
  import { clock, number, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const move = $derived(sheet.plan.move);
  const marks = $derived(move.marks);
  const follow = $derived(move.follow);
  const sights = $derived(sheet.evaluation.view?.sights ?? []);
  const cues = $derived(sights.filter((one) => one.cue));
  let open = $state(0);
  const one = $derived(marks[open]);

  const FORMS = [
    { value: 'point', label: 'point' },
    { value: 'post', label: 'post' },
    { value: 'block', label: 'block' },
    { value: 'person', label: 'person' },
    { value: 'bearing', label: 'bearing' }
  ] as const;
  const ACROSS = [
    { value: 'left third', label: 'left third' },
    { value: 'centre', label: 'centre' },
    { value: 'right third', label: 'right third' }
  ] as const;

  const put = (path: string, value: unknown) => void sheet.apply([{ path, value: value as Edit['value'] }]);

  function add() {
    const rail = sheet.plan.rig.axes.find((axis) => axis.name === 'slide') ?? { low: 0, high: 900 };
    const mark = {
      name: `mark ${marks.length + 1}`,
      x_mm: Math.round((rail.low + rail.high) / 2),
      y_mm: Math.round((rail.high - rail.low) * 1.6)
    };
    open = marks.length;
    put('move.marks', [...marks, mark]);
  }

  function drop(index: number) {
    const edits: Edit[] = [];
    // What is followed keeps being followed, or nothing is, before the marks change their numbers.
    if (follow) {
      const kept =
        follow.mark === index ? null : { ...follow, mark: follow.mark - (follow.mark > index ? 1 : 0) };
      if (follow.mark === index) edits.push({ path: 'move.follow', value: null });
      else edits.push({ path: 'move.follow', value: kept as unknown as Edit['value'] });
    }
    edits.push({
      path: 'move.marks',
      value: marks.filter((_, at) => at !== index) as unknown as Edit['value']
    });
    open = Math.max(0, index - 1);
    void sheet.apply(edits);
  }

  function followMark(index: number | null) {
    put(
      'move.follow',
      index === null ? null : { mark: index, across: follow?.across ?? 'centre', every_frame: false }
    );
  }

  const first = $derived(move.keyframes[0]!);
  const end = $derived(move.keyframes.at(-1)!);
  /** To begin with, the ends of the move as they stand: what was read off the rig is typed over them. */
  function aimTwice() {
    const apart = end.slide_mm === first.slide_mm ? first.slide_mm + 500 : end.slide_mm;
    put(`move.marks.${open}.aimed`, {
      slide_1_mm: first.slide_mm,
      pan_1_deg: first.pan_deg,
      slide_2_mm: apart,
      pan_2_deg: end.pan_deg
    });
  }
  const when = (at: number) => clock(at, sheet.zone);
</script>

<div class="marks">
  <div class="left">
    <PlanDrawing height={300} />
    <SideView />
    <h3>In the picture</h3>
    {#if sights.length}
      <table>
        <thead
          ><tr><th scope="col">mark</th><th scope="col">frames</th><th scope="col">on the clock</th></tr
          ></thead
        >
        <tbody>
          {#each sights as sight (sight.index)}
            <tr>
              <th scope="row">{sight.name}</th>
              <td
                >{sight.runs.length
                  ? sight.runs
                      .map(([a = 0, b = 0]) => `${number(a + 1, 12)} to ${number(b + 1, 12)}`)
                      .join(', ')
                  : 'never'}</td
              >
              <td>{sight.clocks.map(([a = 0, b = 0]) => `${when(a)} to ${when(b)}`).join(', ')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {:else}<p class="mono-note">
        As soon as marks stand on the drawing and the clip is closed, it says when each is seen.
      </p>{/if}
    {#if cues.length}
      <div class="cues">
        <h3>Cue list</h3>
        <ol>
          {#each cues as cue (cue.index)}
            <li>
              <b>{cue.name}</b>
              {#if cue.runs.length}
                there from {when(cue.clocks[0]?.[0] ?? 0)}, for {#each cue.clocks as [a = 0, b = 0], n (n)}{n
                    ? ', '
                    : ' '}{write(Math.max(b - a, 0), 's')}{/each}; stand still while the shutter is open.
              {:else}never in the picture.{/if}
            </li>
          {/each}
        </ol>
      </div>
    {/if}
  </div>
  <div class="right">
    <h3 class="top">
      Marks <button type="button" class="link add" onclick={add} disabled={marks.length >= 40}
        >+ a mark</button
      >
    </h3>
    <ul>
      {#each marks as mark, index (index)}
        <li class:here={index === open}>
          <button
            type="button"
            aria-current={index === open ? 'true' : undefined}
            onclick={() => (open = index)}
            >{mark.name}
            <span class="label"
              >{mark.form === 'bearing'
                ? write(mark.bearing_deg ?? 0, 'deg')
                : `${number((mark.y_mm ?? 0) / 1000, 3)} m`}{follow?.mark === index ? ', followed' : ''}</span
            ></button
          >
          <button type="button" class="drop" aria-label="Take {mark.name} away" onclick={() => drop(index)}
            ><X size={14} /></button
          >
        </li>
      {:else}
        <li class="mono-note">
          No mark yet. A mark is something in the scene: what is filmed, what is near, who walks in.
        </li>
      {/each}
    </ul>

    {#if one}
      {@const path = `move.marks.${open}`}
      <div class="one">
        <input
          class="field"
          value={one.name}
          aria-label="name of mark {open + 1}"
          maxlength="120"
          onchange={(event) => void sheet.type(`${path}.name`, event.currentTarget.value)}
        />
        {#if sheet.troubles.get(`${path}.name`)}<span role="alert">{sheet.troubles.get(`${path}.name`)}</span
          >{/if}
        <Choice
          label="Form of the mark"
          options={FORMS}
          value={one.form ?? 'point'}
          onchoose={(form) => put(`${path}.form`, form)}
        />
        <dl>
          {#if one.form === 'bearing'}
            <div>
              <dt>bearing</dt>
              <dd>
                <Editable
                  path="{path}.bearing_deg"
                  label="bearing of {one.name}"
                  value={one.bearing_deg ?? 0}
                  unit="deg"
                  min={-360}
                />
              </dd>
            </div>
            <div>
              <dt>above the horizon</dt>
              <dd>
                <Editable
                  path="{path}.altitude_deg"
                  label="altitude of {one.name}"
                  value={one.altitude_deg ?? 0}
                  unit="deg"
                  min={-90}
                />
              </dd>
            </div>
          {:else}
            <div>
              <dt>along the rail</dt>
              <dd>
                <Editable
                  path="{path}.x_mm"
                  label="{one.name}, along the rail"
                  value={one.x_mm ?? 0}
                  unit="mm"
                  min={-1e6}
                />
              </dd>
            </div>
            <div>
              <dt>away from it</dt>
              <dd>
                <Editable
                  path="{path}.y_mm"
                  label="{one.name}, away from the rail"
                  value={one.y_mm ?? 0}
                  unit="mm"
                  min={-1e6}
                />
              </dd>
            </div>
            <div>
              <dt>top, above the lens</dt>
              <dd>
                <Editable
                  path="{path}.z_mm"
                  label="{one.name}, above the lens"
                  value={one.z_mm ?? 0}
                  unit="mm"
                  min={-1e6}
                />
              </dd>
            </div>
            {#if one.form === 'post' || one.form === 'block'}
              <div>
                <dt>width</dt>
                <dd>
                  <Editable
                    path="{path}.width_mm"
                    label="width of {one.name}"
                    value={one.width_mm ?? 0}
                    unit="mm"
                  />
                </dd>
              </div>
            {/if}
            {#if one.form === 'block'}
              <div>
                <dt>depth</dt>
                <dd>
                  <Editable
                    path="{path}.depth_mm"
                    label="depth of {one.name}"
                    value={one.depth_mm ?? 0}
                    unit="mm"
                  />
                </dd>
              </div>
            {/if}
          {/if}
        </dl>
        <p class="acts">
          <button type="button" class="link" onclick={() => void sheet.change([{ do: 'aim', mark: open }])}
            >aim every keyframe at it</button
          >
          <button
            type="button"
            class="link"
            onclick={() =>
              void sheet.change([{ do: 'aim', mark: open, keyframe: move.keyframes.length - 1 }])}
            >end on it</button
          >
        </p>
        <label
          ><input
            type="checkbox"
            checked={follow?.mark === open}
            onchange={(e) => followMark(e.currentTarget.checked ? open : null)}
          />keep it in its place</label
        >
        {#if follow?.mark === open}
          <Choice
            label="Where it is kept"
            options={ACROSS}
            value={follow.across ?? 'centre'}
            onchoose={(across) => put('move.follow.across', across)}
          />
          <label
            ><input
              type="checkbox"
              checked={follow.every_frame}
              onchange={(e) => put('move.follow.every_frame', e.currentTarget.checked)}
            />work the pan out for every frame</label
          >
          {#if sheet.figure('track.error')}
            <p>off its place by <Working figure="track.error" /> of the width at most</p>
          {/if}
        {/if}
        {#if one.form !== 'bearing'}
          <label
            ><input
              type="checkbox"
              checked={one.cue}
              onchange={(e) => put(`${path}.cue`, e.currentTarget.checked)}
            />has to be there in time (cue list)</label
          >
          {#if one.aimed}
            <h4>
              Aimed at twice <button type="button" class="link add" onclick={() => put(`${path}.aimed`, null)}
                >forget it</button
              >
            </h4>
            <dl>
              {#each [1, 2] as const as n (n)}
                <div>
                  <dt>{n === 1 ? 'first' : 'second'}: slide, pan</dt>
                  <dd>
                    <Editable
                      path="{path}.aimed.slide_{n}_mm"
                      label="slide at aim {n}"
                      value={one.aimed[`slide_${n}_mm`]}
                      unit="mm"
                      min={-1e6}
                    />
                    <Editable
                      path="{path}.aimed.pan_{n}_deg"
                      label="pan at aim {n}"
                      value={one.aimed[`pan_${n}_deg`]}
                      unit="deg"
                      min={-360}
                    />
                  </dd>
                </div>
              {/each}
              <div>
                <dt>a pan is read to within</dt>
                <dd>
                  <Editable
                    path="{path}.aimed.doubt_deg"
                    label="doubt of a pan"
                    value={one.aimed.doubt_deg ?? 0.5}
                    unit="deg"
                    min={0.01}
                  />
                </dd>
              </div>
              {#if sheet.figure(`aimed.${open}.away`)}
                <div>
                  <dt>it stands off the rail</dt>
                  <dd><Working figure="aimed.{open}.away" /></dd>
                </div>
                <div>
                  <dt>for all that is known</dt>
                  <dd><Working figure="aimed.{open}.near" /> to <Working figure="aimed.{open}.far" /></dd>
                </div>
                <div>
                  <dt>along the rail</dt>
                  <dd><Working figure="aimed.{open}.along" /></dd>
                </div>
              {/if}
            </dl>
          {:else}
            <button type="button" class="link" onclick={aimTwice}>measure it by aiming twice</button>
          {/if}
        {/if}
      </div>
    {/if}
    <div class="north">
      <dl>
        <div>
          <dt>the rail faces</dt>
          <dd>
            {#if sheet.plan.rig.normal_bearing_deg === null}
              <button type="button" class="link" onclick={() => put('rig.normal_bearing_deg', 0)}
                >set its bearing</button
              >
            {:else}
              <Editable
                path="rig.normal_bearing_deg"
                label="bearing square to the rail"
                value={sheet.plan.rig.normal_bearing_deg ?? 0}
                unit="deg"
              />
            {/if}
          </dd>
        </div>
        <div>
          <dt>lens above the ground</dt>
          <dd>
            <Editable
              path="rig.standing.lens_height_mm"
              label="lens above the ground"
              value={sheet.plan.rig.standing?.lens_height_mm ?? 1500}
              unit="mm"
            />
          </dd>
        </div>
        {#each ['first', 'last'] as const as at (at)}
          {#if sheet.figure(`sun.azimuth.${at}`)}
            <div>
              <dt>sun at the {at} frame</dt>
              <dd><Working figure="sun.azimuth.{at}" />, <Working figure="sun.altitude.{at}" /> high</dd>
            </div>
          {/if}
        {/each}
      </dl>
    </div>
  </div>
</div>

<style>
  .marks {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 316px;
    gap: 20px;
  }
  h3 {
    margin-top: 8px;
    border-top: 1px solid var(--ink);
    padding-top: 4px;
  }
  .top {
    margin-top: 0;
    display: flex;
    justify-content: space-between;
  }
  h4 {
    font-weight: 600;
    margin-top: 6px;
    display: flex;
    justify-content: space-between;
  }
  .add {
    font-weight: 450;
    font-size: 13px;
    min-height: 24px;
  }
  ul li {
    display: flex;
    border-bottom: 1px solid var(--hair);
  }
  ul li.here {
    background: var(--wash);
  }
  .here .label {
    color: var(--ink);
  }
  li > button:first-child {
    flex: 1;
    text-align: left;
    min-height: 26px;
    padding: 2px 4px;
    font-weight: 550;
  }
  .drop {
    display: grid;
    place-items: center;
    width: 26px;
    color: var(--second);
  }
  .one {
    display: grid;
    gap: 4px;
    margin: 8px 0;
    font-size: 13px;
    border-top: 1px solid var(--ink);
    padding-top: 4px;
  }
  .one .field {
    font-weight: 650;
    font-size: 14px;
  }
  .one label {
    display: flex;
    align-items: center;
    gap: 4px;
    margin-left: -5px;
  }
  .acts {
    display: flex;
    gap: 14px;
  }
  .link {
    min-height: 24px;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    font-size: 13px;
  }
  dt {
    color: var(--second);
  }
  dd {
    text-align: right;
  }
  .north {
    border-top: 1px solid var(--ink);
    padding-top: 4px;
  }
  table {
    width: 100%;
    font-size: 13px;
    border-collapse: collapse;
  }
  thead th {
    font-weight: 450;
    font-size: 12px;
    color: var(--second);
    text-align: left;
  }
  tbody th {
    font-weight: 600;
    text-align: left;
    vertical-align: top;
    padding: 2px 10px 2px 0;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  .cues ol {
    font-size: 13px;
    padding-left: 0;
  }
  @media (max-width: 1000px) {
    .marks {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media (max-width: 760px) {
    li > button:first-child,
    .link {
      min-height: 44px;
    }
    .drop {
      width: 44px;
    }
  }
</style>
