<script lang="ts">
  /** One stop: its steps with their times, each changed where it stands; its way on the bed, played. */
  import { onMount } from 'svelte';
  import { drawn, type Paths } from '../../bench/paths.svelte';
  import BedDrawing from '../../drawings/bed/BedDrawing.svelte';
  import { duration, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import { exact } from '../../parts/paths';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Missing from './Missing.svelte';

  interface Props {
    paths: Paths | undefined;
    at: number;
  }
  let { paths, at }: Props = $props();
  const sheet = theSheet();
  const printing = $derived(sheet.evaluation.printing);
  const plan = $derived(sheet.plan.printing!);
  const stop = $derived(plan.stop!);
  const steps = $derived(printing.steps ?? []);
  const bed = $derived(printing.bed);
  const printer = $derived(
    sheet.plan.kit.copies.map((copy) => copy.card).find((card) => card.kind === 'printer')
  );
  const presses = $derived(printer?.kind === 'printer' && printer.fires === 'switch');
  const layer = $derived(paths ? drawn(paths, at) : '');
  /** How long the press is held before it counts. */
  const ahead = $derived(Math.max(exact(sheet.plan.beat.wake_s), exact(sheet.plan.beat.half_s)));

  const WHERE = [
    { value: 'end', label: 'at its end' },
    { value: 'change', label: 'at the change' },
    { value: 'infill', label: 'before its infill' }
  ] as const;
  const WAYS = [
    { value: 'file', label: 'a changed file' },
    { value: 'slicer', label: 'the slicer’s field' },
    { value: 'host', label: 'the host’s commands' }
  ] as const;
  const ORDERS = [
    { value: 'straight', label: 'straight there' },
    { value: 'x first', label: 'along X first' },
    { value: 'y first', label: 'along Y first' }
  ] as const;
  const RIDES = [
    { value: 'on its own', label: 'stands on its own' },
    { value: 'on the printer', label: 'stands on the printer' }
  ] as const;
  /** What stands behind a step, to be changed there. */
  const PATHS: Record<string, { path: string; unit: string; label: string }[]> = {
    'draw back': [
      { path: 'printing.stop.back_mm', unit: 'mm', label: 'draw back' },
      { path: 'printing.stop.back_mm_s', unit: 'mm/s', label: 'speed of drawing back' }
    ],
    raise: [{ path: 'printing.stop.raise_mm', unit: 'mm', label: 'raise' }],
    travel: [{ path: 'printing.stop.travel_mm_s', unit: 'mm/s', label: 'speed of travel' }],
    settle: [{ path: 'printing.stop.settle_s', unit: 's', label: 'settle' }],
    press: [
      { path: 'printing.stop.over_mm', unit: 'mm', label: 'beyond the click' },
      { path: 'printing.stop.press_mm_s', unit: 'mm/s', label: 'speed of pressing' }
    ],
    hold: [{ path: 'beat.press_s', unit: 's', label: 'full press' }],
    'back off': [{ path: 'printing.stop.off_mm', unit: 'mm', label: 'back off' }]
  };
  const WORDS: Record<string, string> = {
    'draw back': 'draw the filament back',
    raise: 'raise the head',
    travel: 'travel to the parking place',
    'lamps warm up': 'lamps warm up',
    settle: 'come to rest',
    press: 'press the switch',
    hold: 'hold it down',
    'back off': 'let go',
    wait: 'wait for the picture',
    return: 'return',
    lower: 'lower the head',
    prime: 'push the filament again'
  };

  let playing = $state(false);
  let elapsed = $state(0);
  const whole = $derived(steps.reduce((sum, step) => sum + step.seconds, 0));
  let handle = 0;
  onMount(() => () => cancelAnimationFrame(handle));
  function play() {
    playing = !playing;
    if (!playing) return;
    if (elapsed >= whole) elapsed = 0;
    let before = performance.now();
    const turn = (now: number) => {
      if (!playing) return;
      elapsed = Math.min(whole, elapsed + (now - before) / 1000);
      before = now;
      if (elapsed >= whole) playing = false;
      else handle = requestAnimationFrame(turn);
    };
    handle = requestAnimationFrame(turn);
  }
  /** Where the head is at that time of the stop, and in which step. */
  const now = $derived.by(() => {
    let [begun, n] = [0, 0];
    while (n < steps.length - 1 && begun + steps[n]!.seconds <= elapsed) begun += steps[n++]!.seconds;
    const step = steps[n];
    const extents = plan.file?.extents_mm;
    if (!step || !bed || bed.park_x === null) return { step: n, head: undefined };
    const part = extents
      ? { x: (extents[0]! + extents[1]!) / 2, y: (extents[2]! + extents[3]!) / 2 }
      : { x: bed.bed.x1 / 2, y: bed.bed.y1 / 2 };
    const park = { x: bed.park_x, y: bed.park_y ?? part.y };
    const press = { x: bed.press_x ?? park.x, y: bed.press_y ?? park.y };
    const share = step.seconds ? Math.min(1, (elapsed - begun) / step.seconds) : 1;
    const between = (a: typeof part, b: typeof part, done = share) => ({
      x: a.x + (b.x - a.x) * done,
      y: a.y + (b.y - a.y) * done
    });
    const turn = bed.corner_x === null || bed.corner_y === null ? null : { x: bed.corner_x, y: bed.corner_y };
    const along = (done: number) => {
      if (!turn) return between(part, park, done);
      const first = Math.hypot(turn.x - part.x, turn.y - part.y);
      const cut = first / (first + Math.hypot(park.x - turn.x, park.y - turn.y) || 1);
      return done < cut
        ? between(part, turn, done / cut)
        : between(turn, park, (done - cut) / (1 - cut || 1));
    };
    const heads: Record<string, typeof part> = {
      travel: along(share),
      press: between(park, press),
      hold: press,
      'back off': between(press, park),
      return: along(1 - share),
      'draw back': part,
      raise: part,
      lower: part,
      prime: part
    };
    return { step: n, head: heads[step.what] ?? park };
  });
  /** One way at least stays: without any the stops would reach nobody. */
  function deliver(way: (typeof WAYS)[number]['value'], put: boolean) {
    const rest = (plan.by ?? ['file']).filter((one) => one !== way);
    sheet.put('printing.by', put || !rest.length ? [...rest, way] : rest);
  }
  let copied = $state('');
  async function copy(text: string, what: string) {
    await navigator.clipboard.writeText(text);
    copied = what;
  }
</script>

<Missing />
<div class="cols">
  <div>
    <Rows>
      <Row label="where in the layer"
        ><Choice
          label="Where in the layer the stop stands"
          options={WHERE}
          value={stop.where ?? 'end'}
          onchoose={(where) => sheet.put('printing.stop.where', where)}
          quiet
        /></Row
      >
    </Rows>
    {#if steps.length}
      <table>
        <caption class="sr-only">The steps of one stop</caption>
        <tbody>
          {#each steps as step, n (n)}
            <tr class:now={elapsed > 0 && n === now.step} data-step={step.what}>
              <th scope="row">{WORDS[step.what] ?? step.what}</th>
              <td class="set">
                {#if step.what === 'wait'}
                  <Editable
                    path="trigger.dwell_s"
                    label="wait for the picture"
                    unit="s"
                    exactText
                    empty="as long as it takes"
                  />
                {:else}
                  {#each PATHS[step.what] ?? [] as one, i (one.path)}{#if i}<span class="label">at</span
                      >{/if}<Editable
                      path={one.path}
                      label={one.label}
                      unit={one.unit}
                      exactText={one.unit === 's'}
                    />{:else}{#if step.far_mm !== null}<span class="label"
                        >{write(Math.round(step.far_mm * 10) / 10, 'mm')}</span
                      >{/if}{/each}{#if step.what === 'hold' && ahead > 0}<span class="label"
                      >after {duration(ahead)} to wake</span
                    >{/if}
                {/if}
              </td>
              <td class="s">{duration(Math.round(step.seconds * 100) / 100)}</td>
              <td class="bar"><i style:width="{(step.seconds / whole) * 100}%"></i></td>
            </tr>
          {/each}
          <tr class="sum"
            ><th scope="row">one stop</th><td></td><td class="s">{duration(Math.round(whole * 100) / 100)}</td
            ><td></td></tr
          >
        </tbody>
      </table>
    {/if}
    <Rows>
      <FigureRow label="one picture takes" figure="printing.picture" />
      <FigureRow label="all stops" figure="printing.added" />
      <FigureRow label="share of the print" figure="printing.share" />
      <Row label="its way there"
        ><Choice
          label="The head’s way to its parking place"
          options={ORDERS}
          value={stop.order ?? 'straight'}
          onchoose={(order) => sheet.put('printing.stop.order', order)}
          quiet
        /></Row
      >
      {#if !steps.some((step) => step.what === 'raise')}
        <Row label="raise the head first"
          ><Editable path="printing.stop.raise_mm" label="raise the head first" unit="mm" /></Row
        >
      {/if}
      {#if !steps.some((step) => step.what === 'settle')}
        <Row label="come to rest before the press"
          ><Editable path="printing.stop.settle_s" label="come to rest" unit="s" exactText /></Row
        >
      {/if}
      <Row label="the printer draws the filament back"
        ><Tick
          checked={stop.by_firmware === true}
          onchange={(on) => sheet.put('printing.stop.by_firmware', on)}>by its own command</Tick
        ></Row
      >
      {#if !presses}
        <Row label="parks at X"
          ><Editable
            path="printing.stop.park_x_mm"
            label="parks at X"
            unit="focal"
            min={-2000}
            empty="as on its card"
          /></Row
        >
      {/if}
      <Row label="parks at Y"
        ><Editable
          path="printing.stop.park_y_mm"
          label="parks at Y"
          unit="focal"
          min={-2000}
          empty="as on its card"
        /></Row
      >
      <Row label="the camera"
        ><Choice
          label="What the camera stands on"
          options={RIDES}
          value={plan.camera_rides ?? 'on its own'}
          onchoose={(rides) => sheet.put('printing.camera_rides', rides)}
          quiet
        /></Row
      >
    </Rows>
  </div>
  <div>
    {#if bed}
      <div class="bed">
        <BedDrawing {bed} extents={plan.file?.extents_mm} {layer} head={elapsed > 0 ? now.head : undefined} />
      </div>
      {#if steps.length}
        <p class="acts">
          <button type="button" class="act small" onclick={play}>{playing ? 'Hold' : 'Play one stop'}</button>
          <input
            type="range"
            min="0"
            max={whole}
            step="0.02"
            bind:value={elapsed}
            aria-label="time within the stop"
            oninput={() => (playing = false)}
          />
          <span class="label">{WORDS[steps[now.step]?.what ?? ''] ?? ''}</span>
        </p>
      {/if}
    {/if}
    {#if printing.ways?.length}
      <h3>How it reaches the printer</h3>
      <div class="ways">
        {#each WAYS as way (way.value)}
          {@const on = (plan.by ?? ['file']).includes(way.value)}
          <Tick checked={on} onchange={(put) => deliver(way.value, put)}>{way.label}</Tick>
        {/each}
      </div>
      {#each printing.ways.filter( (one) => (plan.by ?? []).some( (by) => one.by.startsWith(by) ) ) as way (way.by)}
        <h4>
          {way.by === 'slicer'
            ? 'Before each layer change'
            : way.by === 'host before'
              ? 'Before a picture'
              : 'After a picture'}
        </h4>
        <pre>{way.lines.join('\n')}</pre>
        <button type="button" class="link" onclick={() => void copy(way.lines.join('\n'), way.by)}
          >{copied === way.by ? 'copied' : 'copy'}</button
        >
      {/each}
      {#if (plan.by ?? []).some((one) => one !== 'file')}
        <p class="label">
          It sets and restores its own modes. The next move of the file has to name X, Y and its feed.
          {#if plan.file?.relative_e}
            E counts relatively in this file, so nothing is drawn back here: let the slicer retract at each
            layer change, and put these lines into its field after that.
          {/if}
          A field before each layer change comes once less than there are layers: put the same lines at the top
          of the end code too, or the finished part is not in the clip. If your slicer writes the field before the
          first layer as well, strike that frame out. Slice it, put the file in beside the one without stops, and
          prove it as it came, held against that.
        </p>
      {/if}
    {/if}
  </div>
</div>
<p class="caution">
  Hot end and bed burn, and the axes pinch: no hand near the head while it jogs or prints. Nobody leaves a
  printer alone for hours that has no one within reach and no smoke alarm; local rules come first. Wiring into
  a printer’s board is done with its plug pulled, by somebody who knows it. Tape and magnets let go near heat.
</p>

<style>
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
    gap: 0 30px;
  }
  table {
    width: 100%;
    margin: 8px 0;
  }
  th {
    text-align: left;
    font-weight: 450;
    padding: 3px 8px 3px 0;
  }
  tr {
    border-top: 1px solid var(--hair);
  }
  .now th {
    font-weight: 650;
  }
  .sum {
    border-top-color: var(--ink);
    font-weight: 650;
  }
  .set {
    white-space: nowrap;
  }
  .s {
    text-align: right;
    white-space: nowrap;
    padding-right: 10px;
  }
  .bar {
    width: 90px;
  }
  .bar i {
    display: block;
    height: 8px;
    background: var(--ink);
  }
  .bed :global(svg) {
    max-height: 300px;
  }
  .acts {
    display: flex;
    gap: 10px;
    align-items: center;
    margin: 6px 0;
  }
  input[type='range'] {
    flex: 1;
    accent-color: var(--ink);
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
  }
  pre {
    font:
      12px/1.4 ui-monospace,
      monospace;
    border-left: 1px solid var(--ink);
    padding-left: 10px;
    white-space: pre-wrap;
  }
  .caution {
    border-left: 3px solid var(--mind);
    padding-left: 10px;
    max-width: 96ch;
    margin-top: 12px;
  }
  @media (max-width: 900px) {
    input[type='range'] {
      min-height: 44px;
    }
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
