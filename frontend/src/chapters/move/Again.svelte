<script lang="ts">
  /** There and back, several places in each cycle, the same positions again, and the same path run live. */
  import { exact } from '../../parts/paths';
  import type { Edit } from '../../api/client';
  import { number } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const move = $derived(sheet.plan.move);
  const visits = $derived(move.visits);
  const stations = $derived(visits?.kind === 'stations' ? visits.stations : []);
  const axes = $derived(sheet.plan.rig.axes.map((axis) => axis.name));
  const put = (path: string, value: unknown) => void sheet.apply([{ path, value: value as Edit['value'] }]);
  const ROUNDS = [
    { value: 'none', label: 'one picture' },
    { value: 'stations', label: 'stations' },
    { value: 'row', label: 'panorama row' },
    { value: 'stereo', label: 'stereo pair' }
  ] as const;
  const here = $derived(move.keyframes[0]!);

  function round(kind: (typeof ROUNDS)[number]['value']) {
    const names = ['A', 'B', 'C'];
    const made = {
      none: null,
      stations: {
        kind: 'stations',
        stations: move.keyframes.slice(0, 3).map((key, n) => ({
          name: `station ${names[n]}`,
          slide_mm: key.slide_mm,
          pan_deg: key.pan_deg,
          tilt_deg: key.tilt_deg
        }))
      },
      row: { kind: 'row' },
      stereo: { kind: 'stereo' }
    }[kind];
    put('move.visits', made);
  }

  function addStation() {
    const one = {
      name: `station ${String.fromCharCode(65 + stations.length)}`,
      slide_mm: here.slide_mm,
      pan_deg: here.pan_deg,
      tilt_deg: here.tilt_deg
    };
    put('move.visits', { kind: 'stations', stations: [...stations, one] });
  }
  const FIELDS = $derived(
    (['slide', 'pan', 'tilt'] as const)
      .filter((name) => axes.includes(name))
      .map((name) => ({
        name,
        field: name === 'slide' ? ('slide_mm' as const) : (`${name}_deg` as const),
        unit: name === 'slide' ? 'mm' : 'deg'
      }))
  );
</script>

<div class="again">
  <section>
    <h3>There and back</h3>
    <p>
      From end to end <Editable
        path="move.legs"
        label="ways from end to end"
        value={move.legs ?? 1}
        unit="times"
        min={1}
      />{move.legs === 1
        ? ': there.'
        : move.legs === 2
          ? ': there and back, with ease at the turn.'
          : ', with ease at each turn.'}
    </p>
    <p class="acts">
      {#each [{ legs: 1, label: 'there once' }, { legs: 2, label: 'there and back' }] as one (one.legs)}
        <button
          type="button"
          class="link"
          disabled={move.legs === one.legs}
          onclick={() => put('move.legs', one.legs)}>{one.label}</button
        >
      {/each}
    </p>
    <p class="mono-note">
      Where a drive turns back, its backlash is taken up in the still time, before the shutter opens.
    </p>

    <h3>In each cycle</h3>
    <Choice label="Pictures in each cycle" options={ROUNDS} value={visits?.kind ?? 'none'} onchoose={round} />
    {#if visits?.kind === 'stations'}
      <p class="mono-note">
        The rig goes round all of them in every interval; each makes a clip of its own. The keyframes do not
        count.
      </p>
      <table>
        <thead
          ><tr
            ><th scope="col">station</th>{#each FIELDS as one (one.name)}<th scope="col">{one.name}</th
              >{/each}<td></td></tr
          ></thead
        >
        <tbody>
          {#each stations as station, n (n)}
            <tr>
              <td
                ><input
                  class="field"
                  value={station.name}
                  aria-label="name of station {n + 1}"
                  maxlength="120"
                  onchange={(e) => void sheet.type(`move.visits.stations.${n}.name`, e.currentTarget.value)}
                /></td
              >
              {#each FIELDS as one (one.name)}
                <td
                  ><Editable
                    path="move.visits.stations.{n}.{one.field}"
                    label="{one.name} at {station.name}"
                    value={station[one.field] ?? 0}
                    unit={one.unit}
                    min={-1e6}
                  /></td
                >
              {/each}
              <td
                >{#if stations.length > 1}<button
                    type="button"
                    class="link"
                    aria-label="Take {station.name} away"
                    onclick={() =>
                      put('move.visits', {
                        kind: 'stations',
                        stations: stations.filter((_, at) => at !== n)
                      })}>take away</button
                  >{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      <button type="button" class="link" disabled={stations.length >= 20} onclick={addStation}
        >+ a station</button
      >
    {:else if visits?.kind === 'row'}
      <dl>
        {#if !visits.closed}<div>
            <dt>sweep</dt>
            <dd>
              <Editable
                path="move.visits.sweep_deg"
                label="sweep of the row"
                value={visits.sweep_deg ?? 90}
                unit="deg"
                min={1}
              />
            </dd>
          </div>{/if}
        <div>
          <dt>overlap, at the least</dt>
          <dd>
            <Editable path="move.visits.overlap" label="overlap" value={visits.overlap ?? 0.3} unit="share" />
          </dd>
        </div>
        <div>
          <dt>all the way round</dt>
          <dd>
            <input
              type="checkbox"
              aria-label="all the way round"
              checked={visits.closed}
              onchange={(e) => put('move.visits.closed', e.currentTarget.checked)}
            />
          </dd>
        </div>
        <div>
          <dt>pictures in a row</dt>
          <dd><Working figure="round.row" /></dd>
        </div>
        <div>
          <dt>true overlap</dt>
          <dd><Working figure="round.overlap" /></dd>
        </div>
      </dl>
    {:else if visits?.kind === 'stereo'}
      <dl>
        <div>
          <dt>base</dt>
          <dd>
            <Editable
              path="move.visits.base_mm"
              label="stereo base"
              value={visits.base_mm ?? 65}
              unit="mm"
              min={0.1}
            />
          </dd>
        </div>
      </dl>
    {/if}
    {#if visits}
      <dl>
        <div>
          <dt>pictures in all</dt>
          <dd><Working figure="round.pictures" /></dd>
        </div>
        <div>
          <dt>one cycle needs</dt>
          <dd><Working figure="beat.need" /></dd>
        </div>
      </dl>
    {/if}
  </section>
  <section>
    <h3>The same positions again</h3>
    <p class="mono-note">
      Another pass at its own interval, or in another light: a clean background, subject and sky at different
      speeds.
    </p>
    {#each move.passes ?? [] as pass, n (n)}
      <div class="pass">
        <input
          class="field"
          value={pass.name}
          aria-label="name of pass {n + 1}"
          maxlength="120"
          onchange={(e) => void sheet.type(`move.passes.${n}.name`, e.currentTarget.value)}
        />
        <span
          >every <Editable
            path="move.passes.{n}.interval_s"
            label="interval of {pass.name}"
            value={pass.interval_s === null || pass.interval_s === undefined
              ? (sheet.evaluation.interval_s ?? null)
              : exact(pass.interval_s)}
            unit="s"
            exactText
          /></span
        >
        <span>lasts <Working figure="pass.{n}" /></span>
        <button
          type="button"
          class="link"
          onclick={() =>
            put(
              'move.passes',
              (move.passes ?? []).filter((_, at) => at !== n)
            )}>take away</button
        >
      </div>
    {/each}
    {#each sheet.plan.rig.axes as axis (axis.name)}
      {#if sheet.figure(`pass.repeat.${axis.name}`)}
        <p>
          The {axis.name} comes back to within <Working figure="pass.repeat.{axis.name}" />, less if it always
          comes from the same side.
        </p>
      {/if}
    {/each}
    <button
      type="button"
      class="link"
      disabled={(move.passes ?? []).length >= 10}
      onclick={() =>
        put('move.passes', [...(move.passes ?? []), { name: `pass ${(move.passes ?? []).length + 2}` }])}
      >+ a pass</button
    >

    <h3>Run live</h3>
    {#if move.live_s === null || move.live_s === undefined}
      <p class="mono-note">The same path for video: no frames, one take, the same limits.</p>
      <button
        type="button"
        class="link"
        onclick={() =>
          put('move.live_s', String(Math.max(1, Math.round(sheet.quantity('clip')?.value ?? 20))))}
        >run it live too</button
      >
    {:else}
      <dl>
        <div>
          <dt>in</dt>
          <dd>
            <Editable
              path="move.live_s"
              label="length of the live run"
              value={exact(move.live_s)}
              unit="s"
              exactText
            />
          </dd>
        </div>
        {#each sheet.plan.rig.axes as axis (axis.name)}
          <div>
            <dt>{axis.name} at its fastest</dt>
            <dd><Working figure="live.{axis.name}" /></dd>
          </div>
        {/each}
      </dl>
      <button type="button" class="link" onclick={() => put('move.live_s', null)}>not live</button>
    {/if}
    <p class="mono-note gap">
      {number(sheet.evaluation.view?.visits ?? 1, 12)}
      {(sheet.evaluation.view?.visits ?? 1) === 1 ? 'picture' : 'pictures'} in each cycle now.
    </p>
  </section>
</div>

<style>
  .again {
    display: grid;
    grid-template-columns: 1fr 1fr;
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
  .acts {
    display: flex;
    gap: 16px;
  }
  .link {
    min-height: 24px;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }
  dt {
    color: var(--second);
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin-top: 4px;
  }
  th {
    text-align: right;
    font-weight: 450;
    font-size: 12px;
    color: var(--second);
  }
  th:first-child {
    text-align: left;
  }
  td {
    text-align: right;
    border-top: 1px solid var(--hair);
  }
  td:first-child {
    text-align: left;
  }
  .pass {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: baseline;
    border-bottom: 1px solid var(--hair);
  }
  .pass .field {
    width: 120px;
  }
  .gap {
    margin-top: 12px;
  }
  @media (max-width: 1000px) {
    .again {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
