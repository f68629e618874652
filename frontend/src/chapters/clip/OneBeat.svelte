<script lang="ts">
  /** One beat: what it holds, part by part, and both schools of moving side by side. */
  import { changing } from '../../sheet/frames';
  import BeatStrip from '../../drawings/strip/BeatStrip.svelte';
  import { number } from '../../format';
  import { exact } from '../../parts/paths';
  import Editable from '../../parts/Editable.svelte';
  import OriginNote from '../../parts/OriginNote.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const beat = $derived(sheet.plan.beat);
  const told = $derived(sheet.evaluation.beat);
  const NAMES: Record<string, string> = {
    'shoot-move-shoot': 'Shoot, move, shoot',
    continuous: 'Move all the time'
  };
  const PARTS = [
    { path: 'wake_s', label: 'wake', unit: 's' },
    { path: 'lag_s', label: 'shutter lag', unit: 's' },
    { path: 'exposure_s', label: 'exposure', unit: 'shutter' },
    { path: 'write_s', label: 'write to card', unit: 's' },
    { path: 'settle_s', label: 'settle', unit: 's' },
    { path: 'margin', label: 'margin', unit: 'share' }
  ] as const;
  const HOW = { typed: 'typed', card: 'kit card', measured: 'measured', usual: 'usual value' } as const;
  let shown = $state('');

  const put = (path: string, value: unknown) =>
    void sheet.apply([{ path: `beat.${path}`, value: value as never }]);
</script>

<h3>
  What one beat holds
  <span class="label">
    shortest interval that fits <Working figure="beat.shortest" />
    {#if told && changing(sheet.plan).segments.length}· tightest at frame {number(told.frame + 1, 12)}{/if}
  </span>
</h3>
{#if told}<BeatStrip beat={told} />{/if}
<div class="parts">
  {#each PARTS as part (part.path)}
    {@const origin = sheet.evaluation.origins[`beat.${part.path}`]}
    <div>
      <span class="label">{part.label}</span>
      <Editable path="beat.{part.path}" label={part.label} value={exact(beat[part.path])} unit={part.unit} />
      {#if origin}
        <button
          type="button"
          class="from"
          data-how={origin.how}
          aria-expanded={shown === part.path}
          aria-label="{HOW[origin.how]}: where the {part.label} comes from"
          onclick={() => (shown = shown === part.path ? '' : part.path)}>{HOW[origin.how]}</button
        >
      {/if}
    </div>
  {/each}
  <div><span class="label">move</span><Working figure="beat.move" /></div>
  <div>
    <span class="label">interval step</span>
    <Editable
      path="clip.interval_step_s"
      label="interval step"
      value={exact(sheet.plan.clip.interval_step_s)}
      unit="s"
    />
  </div>
</div>
{#if shown}
  {@const part = PARTS.find((one) => one.path === shown)}
  {#if part}<OriginNote path="beat.{part.path}" unit={part.unit} />{/if}
{/if}

<div class="cols">
  <section>
    <h3>Exposures</h3>
    <p class="line">
      <Editable
        path="beat.bracket_frames"
        label="exposures in a bracket"
        value={beat.bracket_frames}
        unit=""
        min={1}
      />
      in a bracket{#if beat.bracket_frames > 1},
        <Editable
          path="beat.bracket_step_stops"
          label="stops apart"
          value={beat.bracket_step_stops}
          unit="stops"
        /> apart, gaps of <Editable
          path="beat.bracket_gap_s"
          label="gap in the bracket"
          value={exact(beat.bracket_gap_s)}
          unit="s"
        />:
        <Working figure="beat.exposures" />{/if}
    </p>
    <label class="tick">
      <input
        type="checkbox"
        checked={beat.noise_reduction}
        onchange={(event) => put('noise_reduction', event.currentTarget.checked)}
      />
      noise reduction in the camera: a dark frame after each exposure
    </label>
    <p class="line">
      merging in the camera <Editable
        path="beat.merge_s"
        label="merge in the camera"
        value={exact(beat.merge_s)}
        unit="s"
      />
    </p>
    <label class="tick">
      <input
        type="checkbox"
        checked={!!beat.stack}
        onchange={(event) =>
          put(
            'stack',
            event.currentTarget.checked
              ? { near_mm: 400, far_mm: 800, overlap: '1/5', move_s: '1/2', settle_s: '1/2' }
              : null
          )}
      />
      focus stack
    </label>
    {#if beat.stack}
      <p class="line">
        from <Editable path="beat.stack.near_mm" label="near" value={beat.stack.near_mm} unit="mm" min={1} /> to
        <Editable path="beat.stack.far_mm" label="far" value={beat.stack.far_mm} unit="mm" min={1} />,
        overlapping by
        <Editable path="beat.stack.overlap" label="overlap" value={exact(beat.stack.overlap)} unit="share" />:
        <Working
          figure="beat.positions"
          shown="{number(sheet.figure('beat.positions')?.value ?? 1)} positions"
        />, each a focus move of <Editable
          path="beat.stack.move_s"
          label="focus move"
          value={exact(beat.stack.move_s)}
          unit="s"
        /> and
        <Editable
          path="beat.stack.settle_s"
          label="focus settle"
          value={exact(beat.stack.settle_s)}
          unit="s"
        /> to settle. Storage and output folders multiply by as much.
      </p>
    {/if}
  </section>
  <section>
    <h3>Storing</h3>
    <p class="line">
      buffer of <Editable
        path="beat.buffer_frames"
        label="buffer"
        value={beat.buffer_frames}
        unit="frames"
      />{#if beat.buffer_frames}:
        {#if sheet.evaluation.stalls_at !== null}full after {number(sheet.evaluation.stalls_at, 12)} frames (about
          <Working figure="buffer.estimate" />){:else}it never fills up in this shoot{/if}{:else}: the camera
        refuses a trigger while it writes{/if}
    </p>
    {#if beat.school === 'shoot-move-shoot'}
      <label class="tick">
        <input
          type="checkbox"
          checked={beat.write_while_moving}
          onchange={(event) => put('write_while_moving', event.currentTarget.checked)}
        />
        the camera writes while the rig moves
      </label>
      <p class="line">
        for a controller that waits a fixed still time: type in <Working figure="beat.still" />
      </p>
    {/if}
    <p class="line">
      exposure over interval <Working figure="beat.share" />
      <span class="label">{sheet.evaluation.beat?.character ?? ''}</span>
    </p>
    <label class="tick">
      <input
        type="checkbox"
        checked={!!beat.uncoupled}
        onchange={(event) =>
          put('uncoupled', event.currentTarget.checked ? { between_starts_s: '20', drift_ppm: 50 } : null)}
      />
      camera and motor each run on their own
    </label>
    {#if beat.uncoupled}
      <p class="line">
        started <Editable
          path="beat.uncoupled.between_starts_s"
          label="between the two starts"
          value={exact(beat.uncoupled.between_starts_s)}
          unit="s"
        /> apart, clocks off by <Editable
          path="beat.uncoupled.drift_ppm"
          label="drift of the clocks"
          value={beat.uncoupled.drift_ppm}
          unit="ppm"
        />: start the camera first, then the motor. <Working figure="untied.first" /> at the start and
        <Working figure="untied.last" /> at the end are not as planned. Nothing waits for the shutter: a frame is
        smeared by anything from none to <Working figure="beat.smear" />.
      </p>
    {/if}
  </section>
</div>

{#if sheet.evaluation.schools.length}
  <table>
    <caption>Two ways to move</caption>
    <thead>
      <tr>
        <td></td>
        <th scope="col">shortest interval</th>
        <th scope="col">smear</th>
        <th scope="col">blur</th>
        <th scope="col">on site at the least</th>
        <td></td>
      </tr>
    </thead>
    <tbody>
      {#each sheet.evaluation.schools as one (one.school)}
        <tr class:here={one.here}>
          <th scope="row">{NAMES[one.school]}<span class="label suits">{one.suits}</span></th>
          <td data-label="shortest interval"><Working figure="school.{one.school}.shortest" /></td>
          <td data-label="smear"
            >{#if one.school === 'continuous'}<Working
                figure="beat.smear"
                shown="{number(one.smear_px, 3)} px"
              />{:else}none{/if}</td
          >
          <td data-label="blur">{one.risk}</td>
          <td data-label="on site at the least"><Working figure="school.{one.school}.on_site" /></td>
          <td>
            {#if one.here}<b>in use</b>{:else}<button
                type="button"
                class="act quiet"
                onclick={() => put('school', one.school)}>Switch to it</button
              >{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}

<style>
  h3 .label {
    margin-left: 14px;
    font-weight: 450;
  }
  .parts {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
    gap: 4px 12px;
    margin: 4px 0 2px;
  }
  .parts div {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
  }
  .from {
    font-size: 12px;
    font-stretch: 88%;
    color: var(--second);
    min-height: 24px;
    border-bottom: 1px dashed transparent;
  }
  .from:hover,
  .from[aria-expanded='true'] {
    border-bottom-color: var(--second);
  }
  .from[data-how='measured'] {
    color: var(--ink);
    font-weight: 600;
  }
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 30px;
    margin-top: 8px;
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  .line {
    line-height: 1.75;
    font-size: 13px;
  }
  .tick {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 13px;
    min-height: 26px;
  }
  table {
    width: 100%;
    margin-top: 10px;
    font-size: 13px;
  }
  caption {
    text-align: left;
    font-weight: 650;
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  thead th {
    font-size: 12px;
    font-stretch: 88%;
    font-weight: 450;
    color: var(--second);
    text-align: left;
  }
  th,
  td {
    padding: 4px 10px 4px 0;
    vertical-align: top;
    text-align: left;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  .here th {
    border-left: 4px solid var(--ink);
    padding-left: 8px;
  }
  .suits {
    display: block;
    font-weight: 450;
    max-width: 46ch;
  }
  .act {
    padding: 3px 12px;
    min-height: 30px;
  }
  @media (max-width: 760px) {
    .cols {
      grid-template-columns: 1fr;
      gap: 10px;
    }
    .parts {
      grid-template-columns: repeat(2, 1fr);
      gap: 10px 12px;
      font-size: 17px;
    }
    .tick {
      min-height: 44px;
    }
    table,
    tbody,
    tr,
    th,
    td {
      display: block;
    }
    thead {
      display: none;
    }
    caption {
      display: block;
      width: 100%;
    }
    td[data-label]::before {
      content: attr(data-label) ': ';
      color: var(--second);
    }
    .act {
      min-height: 44px;
    }
  }
</style>
