<script lang="ts">
  /** The shoot taken by the stand-ins: frame by frame in simulated time, with what a person can ask of it. */
  import { onMount } from 'svelte';
  import { api, type LogLine } from '../../api/client';
  import { clock, duration, number, shortDay, shutter, write } from '../../format';
  import DamagedRow from '../../parts/DamagedRow.svelte';
  import NoteField from '../../parts/NoteField.svelte';
  import Tick from '../../parts/Tick.svelte';
  import TakenTable from '../../parts/TakenTable.svelte';
  import Working from '../../parts/Working.svelte';
  import { RunWatch, type Speed } from '../../sheet/run.svelte';
  import { grouped, type Told } from './told';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { LONG_WEATHERS, WEATHERS, type Weather } from '../../sheet/weather';

  const sheet = theSheet();
  const watch = new RunWatch(sheet.id);
  const HOURS: readonly { value: Speed; label: string; said: string }[] = [
    { value: 1, label: '1×', said: 'real time' },
    { value: 60, label: '60×', said: 'a minute a second' },
    { value: 600, label: '600×', said: 'ten minutes a second' },
    { value: 0, label: 'as fast as it goes', said: '' }
  ];
  const MONTHS: typeof HOURS = [
    { value: 600, label: '600×', said: 'ten minutes a second' },
    { value: 86400, label: 'a day a second', said: '' },
    { value: 0, label: 'as fast as it goes', said: '' }
  ];
  /** Whether it is a camera that stays for weeks, with a battery and a card that somebody looks after. */
  const stays = $derived(sheet.evaluation.season.long ?? false);
  const SPEEDS = $derived(stays ? MONTHS : HOURS);
  let comes = $state(true);
  /** On which day too, where there are many. */
  const when = (at: number) =>
    stays ? `${shortDay(at, sheet.zone)}, ${clock(at, sheet.zone, false)}` : clock(at, sheet.zone);
  const PHASES: Record<string, string> = {
    ready: 'About to start',
    preparing: 'Moving to the next frame',
    waiting: 'Standing still, waiting for the next frame',
    exposing: 'Shutter open',
    paused: 'Paused',
    finished: 'Rehearsed: all frames taken',
    stopped: 'Stopped',
    fault: 'Camera and controller do not agree'
  };
  const PENDING: Record<string, string> = {
    start: 'to start',
    pause: 'to pause',
    'go on': 'to go on',
    stop: 'to stop',
    visit: 'to tick off a visit',
    cut: 'to cut the power'
  };
  let speed = $state<Speed>(600);
  let entry = $state.raw<LogLine | null>(null);
  let asking = $state(false);
  let tick = $state(0);

  const run = $derived(watch.run);
  const stops = $derived(sheet.evaluation.snags.filter((snag) => snag.severity === 'stop'));
  // Between two looks the clock of a run goes on by itself.
  const since = $derived(run && watch.under ? Math.max(0, (tick - watch.seen) / 1000) : 0);
  const left = $derived(run ? Math.max(0, run.left_s - since * run.left_rate) : 0);
  const figures = $derived(Object.fromEntries((run?.figures ?? []).map((one) => [one.key, one])));
  const newest = $derived(grouped(watch.events).reverse());

  onMount(() => {
    void watch.open();
    const timer = setInterval(() => (tick = performance.now()), 250);
    return () => {
      clearInterval(timer);
      watch.close();
    };
  });

  // The playhead goes with a run that is seen under way, up to its last frame.
  let seenUnder = false;
  $effect(() => {
    seenUnder ||= watch.under;
    if (run && seenUnder) sheet.playhead.to(Math.max(0, run.taken - 1));
  });

  $effect(() => {
    const id = run?.entry_id;
    if (!id) entry = null;
    else if (entry?.id !== id) void find(id);
  });

  async function find(id: number) {
    const answer = await api
      .GET('/api/log/{entry_id}', { params: { path: { entry_id: id } } })
      .catch(() => null);
    entry = answer?.data ?? null;
  }

  let weather = $state<Weather>('as planned');
  const lit = $derived(!!sheet.evaluation.light.bright);
  const off = (stops: number) =>
    Math.abs(stops) < 0.05
      ? 'right'
      : `${number(Math.abs(stops), 2)} stops too ${stops > 0 ? 'bright' : 'dark'}`;

  async function begin() {
    asking = true;
    if (await sheet.settle()) await watch.begin(speed, weather, comes);
    else watch.trouble = 'Not everything is saved yet, and a run takes the plan as it is kept.';
    asking = false;
  }

  function wordsFor(event: Told): string {
    if (event.until !== undefined) {
      const which = `Frames ${number((event.frame ?? 0) + 1, 12)} to ${number(event.until + 1, 12)}`;
      return event.kind === 'taken' ? `${which} taken.` : `${which} did not come: ${event.said}.`;
    }
    const frame = event.frame === null ? '' : number(event.frame + 1, 12);
    const words: Record<string, string> = {
      start: 'Started. The axes go to the first keyframe.',
      taken: `Frame ${frame} taken.`,
      missed: `Frame ${frame} did not come: ${event.said}.`,
      skipped: `${number(event.seconds ?? 0, 12)} frames from ${frame} on went by without being taken.`,
      visit: event.said ? `Somebody came: ${event.said}.` : 'A visit ticked off: card and battery swapped.',
      cut: `The power is cut for ${duration(event.seconds ?? 0)}.`,
      deaf: `No frame came of three presses: ${event.said}. The chapter Trigger says how to mend it; it would go on with frame ${frame}.`,
      late: `Frame ${frame} is ${duration(event.seconds ?? 0)} late; the frames after it follow.`,
      pause: `Paused before frame ${frame}.`,
      'go on': `Going on with frame ${frame}.`,
      restart: `The server was restarted. The camera was asked; next is frame ${frame}.`,
      fault: `The camera holds ${event.frame} frames, which is not what was recorded. Look at the card, then go on.`,
      stop: `Stopped after ${event.frame} frames.`,
      finish: run?.missed ? `At its end: ${event.frame} frames taken.` : `All ${event.frame} frames taken.`
    };
    return words[event.kind] ?? event.kind;
  }
</script>

<section class="run">
  <div class="main">
    {#if run}
      <h2>
        {run.missed && run.phase === 'finished'
          ? 'Rehearsed: frames are missing'
          : (PHASES[run.phase] ?? run.phase)} <span class="label">stand-in controller and camera</span>
      </h2>
      {#if run.outdated}<p class="warn" role="status" data-outdated>
          <b>Out of date.</b> The plan has changed since this run was started; run it again to rehearse it as it
          is.
        </p>{/if}
      <p class="big" data-taken={run.taken}>
        <b>{number(run.taken, 12)}</b> of {number(run.frames, 12)} frames{#if run.missed}, {number(
            run.missed,
            12
          )} missed{/if}
      </p>
      <progress max={run.frames} value={run.taken} aria-label="Frames taken"
        >{run.taken} of {run.frames}</progress
      >
      <dl>
        <div>
          <dt>time left</dt>
          <dd><Working figure={figures['run.left']} shown={duration(Math.round(left))} /></dd>
        </div>
        <div>
          <dt>{run.phase === 'stopped' ? 'would have finished' : 'finished'}</dt>
          <dd>
            <Working
              figure={figures['run.finish']}
              {...stays && figures['run.finish'] ? { shown: when(figures['run.finish'].value) } : {}}
            />
          </dd>
        </div>
        <div>
          <dt>clock of the shoot</dt>
          <dd>{when(Date.parse(run.clock) / 1000 + since * run.clock_rate)}</dd>
        </div>
        <div>
          <dt>delayed by</dt>
          <dd><Working figure={figures['run.delayed']} /></dd>
        </div>
        <div>
          <dt>set on the camera</dt>
          <dd>
            {shutter(run.setting.shutter_s)}, ISO {number(run.setting.iso, 6)}, f/{number(
              run.setting.aperture
            )}{run.setting.density ? `, filter of ${write(run.setting.density, 'stops')}` : ''}
          </dd>
        </div>
        {#if run.setting.bright !== null && run.setting.metered_ev !== null}
          <div>
            <dt>meter {run.weather === 'as planned' ? '' : `(${run.weather})`}</dt>
            <dd>{number(run.setting.metered_ev, 3)} EV, {off(run.setting.bright)}</dd>
          </div>
        {/if}
        {#if run.charge !== null}
          <div>
            <dt>charge</dt>
            <dd>{number(run.charge * 100, 3)} %</dd>
          </div>
        {/if}
        {#if run.fill !== null}
          <div>
            <dt>card, full</dt>
            <dd>{number(run.fill * 100, 3)} %</dd>
          </div>
        {/if}
        {#each Object.entries(run.position) as [name, value] (name)}
          <div>
            <dt>{name}</dt>
            <dd>{write(Number(value.toFixed(2)), run.units[name] ?? '')}</dd>
          </div>
        {/each}
      </dl>
    {:else if watch.loaded}
      <h2>Rehearse it before it counts</h2>
      <p class="lead">
        A simulated controller and camera take this shoot frame by frame: each move, each settle, each
        shutter, each write to the card, in simulated time. What happens is logged, and at the end the logbook
        gets an entry.
      </p>
    {:else if !watch.trouble}
      <h2>Run</h2>
      <p class="mono-note" role="status">Looking for a run …</p>
    {/if}

    {#if stops.length && !watch.under}
      <p class="warn" data-stops>
        <b>Stop.</b>
        {stops.length === 1 ? 'One snag stops' : `${stops.length} snags stop`} this shoot. The rehearsal runs all
        the same and shows what would happen: late or missing frames.
      </p>
    {/if}
    {#if run?.trouble}<p class="warn" role="alert" data-stands>{run.trouble}</p>{/if}
    {#if run && watch.under && run.pending.length}
      <p class="warn" role="status" data-pending>
        Asked for and not done yet: {run.pending.map((one) => PENDING[one] ?? one).join(', then ')}.
        {run.phase === 'exposing'
          ? 'It is done when this frame is taken.'
          : 'It is done as soon as the run hears of it.'}
      </p>
    {/if}
    {#each watch.damaged as one (one.id)}
      <div class="warn">
        <b>A run of this shoot is damaged.</b>
        <DamagedRow kind="run" id={one.id} said={one.said} />
        {#if one.under_way}
          <button type="button" class="act quiet" onclick={() => void watch.giveUp(one.id)}
            >Give it up, so that another can begin</button
          >{/if}
      </div>
    {/each}
    {#if watch.trouble}
      {#if !run && !watch.loaded}<h2>Run</h2>{/if}
      <p class="warn" role="alert">{watch.trouble}</p>
    {/if}

    <fieldset>
      <legend class="label">Simulated time goes</legend>
      {#each SPEEDS as one (one.value)}
        <label class:on={(watch.under ? run?.speed : speed) === one.value}>
          <input
            type="radio"
            name="speed"
            value={one.value}
            checked={(watch.under ? run?.speed : speed) === one.value}
            onchange={() => {
              speed = one.value;
              if (watch.under) void watch.ask(null, one.value);
            }}
          />{one.label}<span class="sr-only"> {one.said}</span></label
        >
      {/each}
    </fieldset>
    {#if !watch.under && lit}
      <p>
        <label class="label"
          >under <select bind:value={weather}>
            {#each stays ? LONG_WEATHERS : WEATHERS as one (one)}<option>{one}</option>{/each}
          </select></label
        >
      </p>
    {/if}
    {#if !watch.under && stays}
      <Tick checked={comes} onchange={(on) => (comes = on)}>somebody comes as it is planned</Tick>
    {/if}
    <div class="buttons">
      {#if watch.under && run}
        {#if run.phase === 'paused' || run.phase === 'fault'}
          <button type="button" class="act" onclick={() => void watch.ask('go on')}>Go on</button>
        {:else}
          <button type="button" class="act" onclick={() => void watch.ask('pause')}>Pause</button>
        {/if}
        {#if run.stays}
          <button type="button" class="act quiet" onclick={() => void watch.ask('visit')}
            >Tick off a visit</button
          >
          <button type="button" class="act quiet" onclick={() => void watch.ask('cut')}>Cut the power</button>
        {/if}
        <button type="button" class="act quiet" onclick={() => void watch.ask('stop')}>Stop</button>
      {:else}
        <button
          type="button"
          class="act"
          disabled={asking || !sheet.evaluation.frames}
          onclick={() => void begin()}
        >
          {run ? 'Run it again' : 'Start the run'}
        </button>
        {#if !sheet.evaluation.frames}<p class="mono-note">
            The sentence has to fix frames and interval first.
          </p>{/if}
      {/if}
    </div>

    {#if entry && run && !watch.under}
      {#key entry.id}
        <div class="entry">
          <h3>In the logbook</h3>
          <TakenTable {entry} />
          <NoteField {entry} />
        </div>
      {/key}
    {/if}
  </div>

  <div class="log">
    <h3>What happened</h3>
    <ol aria-label="Event log" aria-live="off">
      {#each newest as event (event.number)}
        <li class={event.kind}>
          <span>{when(Date.parse(event.clock) / 1000)}</span>
          {wordsFor(event)}
        </li>
      {:else}
        <li class="mono-note">Nothing yet.</li>
      {/each}
    </ol>
  </div>
</section>

<style>
  .run {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 340px;
    gap: 30px;
    padding: 20px 24px 20px 30px;
    min-height: 100%;
  }
  .big {
    font-size: 37px;
    letter-spacing: -0.012em;
    line-height: 1.25;
    margin-top: 4px;
  }
  .big b {
    font-weight: 650;
  }
  .lead {
    max-width: 56ch;
    margin: 8px 0 6px;
    font-size: 15px;
  }
  progress {
    appearance: none;
    display: block;
    width: 100%;
    height: 12px;
    margin: 8px 0 12px;
    border: 1px solid var(--ink);
    background: var(--sheet);
  }
  progress::-webkit-progress-bar {
    background: var(--sheet);
  }
  progress::-webkit-progress-value {
    background: var(--ink);
  }
  progress::-moz-progress-bar {
    background: var(--ink);
  }
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 10px 20px;
    margin-bottom: 14px;
  }
  dt {
    color: var(--second);
    font-size: 12px;
    font-stretch: 88%;
  }
  dd {
    font-size: 17px;
    font-weight: 650;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0;
    margin: 12px 0;
  }
  fieldset label {
    position: relative;
    border: 1px solid var(--ink);
    margin-right: -1px;
    padding: 7px 16px;
    cursor: pointer;
  }
  fieldset label.on {
    background: var(--ink);
    color: var(--sheet);
    font-weight: 600;
  }
  fieldset label:focus-within {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
    z-index: 1;
  }
  fieldset input {
    position: absolute;
    opacity: 0;
    inset: 0;
  }
  .buttons {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .warn {
    border-left: 6px solid var(--stop);
    padding-left: 10px;
    margin: 10px 0;
    max-width: 62ch;
  }
  .entry {
    margin-top: 20px;
    max-width: 560px;
  }
  h3 {
    border-top: 1px solid var(--ink);
    padding-top: 6px;
  }
  .log ol {
    max-height: 470px;
    overflow-y: auto;
    margin-top: 6px;
    font-size: 13px;
  }
  .log li {
    padding: 2px 0;
    border-bottom: 1px solid var(--hair);
  }
  .log li span {
    color: var(--second);
    margin-right: 6px;
  }
  .log li:not(.taken, .mono-note) {
    font-weight: 600;
  }
  @media (max-width: 1000px) {
    .run {
      grid-template-columns: minmax(0, 1fr);
      padding: 16px;
    }
    .buttons .act {
      flex: 1;
      min-height: 64px;
      font-size: 19px;
    }
    fieldset label {
      flex: 1 0 auto;
      text-align: center;
      padding: 13px 12px;
    }
    .log ol {
      max-height: 300px;
    }
  }
</style>
