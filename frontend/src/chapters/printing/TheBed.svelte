<script lang="ts">
  /** The bed from above, the core of the print beside it, and which layers call a frame. */
  import { drawn, ways, type Paths } from '../../bench/paths.svelte';
  import type { PrintLine, Prints } from '../../bench/prints.svelte';
  import BedDrawing from '../../drawings/bed/BedDrawing.svelte';
  import CoreSample from '../../drawings/bed/CoreSample.svelte';
  import { duration, number } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Missing from './Missing.svelte';

  interface Props {
    prints: Prints;
    print: PrintLine | undefined;
    paths: Paths | undefined;
    at: number;
    onat: (layer: number) => void;
  }
  let { prints, print, paths, at, onat }: Props = $props();
  const sheet = theSheet();
  const printing = $derived(sheet.evaluation.printing);
  const frames = $derived(sheet.plan.frames?.source === 'layers' ? sheet.plan.frames : null);
  const file = $derived(sheet.plan.printing?.file);
  const start = $derived(paths && ways(paths.start));
  const proof = $derived(print?.works.find((work) => work.kind === 'change' && work.result)?.result);
  const faults = $derived(
    (proof?.failures ?? []).flatMap((one) =>
      one.at ? [{ x: one.at[0]!, y: one.at[1]!, said: one.said }] : []
    )
  );
  const equal = $derived(frames?.equal_mm !== null && frames?.equal_mm !== undefined);
  const z = $derived(frames?.z_mm ?? []);
  const layer = $derived(paths ? drawn(paths, at) : '');
  const below = $derived(paths && at > 1 ? drawn(paths, at - 1) : '');
</script>

{#if !printing.layered}
  <p class="mono-note">
    The frames of this shoot are called by the clock. Put the file of a print in (leaf File and proof), and
    its layers call them: each frame when a layer is done.
  </p>
{:else}
  <div class="cols">
    <div class="drawing">
      {#if printing.bed}
        <BedDrawing bed={printing.bed} extents={file?.extents_mm} {layer} {below} {start} {faults} />
        <p class="label keys">
          <span class="k start">before the first layer</span>
          <span class="k extents">all that is printed</span>
          <span class="k travel">to the parking place</span>
          <span class="k limit">where the head would touch the switch</span>
        </p>
      {:else}
        <p class="mono-note">The bed is drawn once the printer’s card is here.</p>
      {/if}
    </div>
    <div class="core">
      <CoreSample {z} layers={printing.layers ?? 1} chosen={printing.chosen ?? []} {at} {onat} />
      <p class="label">layer {at}{z[at - 1] === undefined ? '' : `, ${number(z[at - 1]!)} mm`}</p>
    </div>
    <div class="told">
      <Missing />
      {#if !print && prints.all && file}
        <p class="label">The file itself is not here; what was read of it is kept in the plan.</p>
      {/if}
      <h3>Which layers call a frame</h3>
      <Rows>
        {#if equal}
          <Row label="a frame every"><Editable path="frames.equal_mm" label="a frame every" unit="mm" /></Row>
        {:else}
          <Row label="every how many layers"
            ><Editable path="frames.every" label="every how many layers" unit="" min={1} /></Row
          >
        {/if}
        <Row label="from layer"><Editable path="frames.first_layer" label="from layer" unit="" min={1} /></Row
        >
        <Row label="to layer"
          ><Editable
            path="frames.last_layer"
            label="to layer"
            unit=""
            min={1}
            empty="the finished part"
          /></Row
        >
        {#if z.length}
          <Row label="at equal heights"
            ><Tick
              checked={equal}
              onchange={(on) => sheet.put('frames.equal_mm', on ? (printing.equal_mm ?? null) : null)}
              >not every so many layers</Tick
            ></Row
          >
        {/if}
      </Rows>
      {#if !equal}
        <table>
          <caption class="sr-only">What every how many layers comes to</caption>
          <thead
            ><tr
              ><th scope="col">every</th><th scope="col">frames</th><th scope="col">clip</th><th scope="col"
                >print</th
              ></tr
            ></thead
          >
          <tbody>
            {#each (printing.offers ?? []).slice(0, 6) as one (one.every)}
              <tr class:on={one.every === frames?.every}>
                <td
                  ><button
                    type="button"
                    class="link"
                    aria-pressed={one.every === frames?.every}
                    onclick={() => void sheet.set('frames.every', one.every)}>{one.every}</button
                  ></td
                >
                <td>{number(one.frames)}</td>
                <td>{duration(Math.round(one.clip_s * 100) / 100)}</td>
                <td>{duration(Math.round(one.print_s / 60) * 60)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
      <Rows>
        <Row label="make the clip"
          ><Editable
            path="clip.clip"
            label="the clip of the print"
            unit="s"
            value={sheet.quantity('clip')?.value ?? null}
          /></Row
        >
        <FigureRow label="it grows a frame" figure="printing.grows" />
        <FigureRow label="one stop" figure="printing.stop" />
        <FigureRow label="all stops" figure="printing.added" />
        <FigureRow label="print with its stops, about" figure="printing.print" />
        <FigureRow label="finished at the earliest" figure="time.earliest" />
        <FigureRow label="at the latest" figure="time.latest" />
      </Rows>
      <p class="label">
        Times are an estimate from the printer’s accelerations; heating and homing come on top.
      </p>
    </div>
  </div>
{/if}

<style>
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 150px 290px;
    gap: 0 18px;
    align-items: start;
  }
  .drawing {
    min-width: 0;
  }
  .core .label {
    text-align: center;
  }
  .keys {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
  }
  .k::before {
    content: '';
    display: inline-block;
    width: 24px;
    border-top: 2px dotted var(--second);
    margin-right: 6px;
    vertical-align: middle;
  }
  .extents::before {
    border-top: 1px dashed var(--second);
  }
  .travel::before {
    border-top: 1px dashed var(--ink);
  }
  .limit::before {
    border-top: 2px dashed var(--mind);
  }
  table {
    width: 100%;
    margin: 6px 0;
  }
  th {
    text-align: left;
    font-weight: 450;
    color: var(--second);
  }
  td {
    border-top: 1px solid var(--hair);
    padding: 2px 0;
  }
  .on td {
    font-weight: 650;
    border-top-color: var(--ink);
  }
  @media (max-width: 600px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
    .core :global(svg) {
      max-height: 320px;
    }
  }
  @media (min-width: 601px) and (max-width: 1100px) {
    .cols {
      grid-template-columns: minmax(0, 1fr) 150px;
    }
    .told {
      grid-column: 1 / -1;
    }
  }
</style>
