<script lang="ts">
  /** The chain on its wiring diagram, what the camera hears of it, and the time of one frame. */
  import { onMount } from 'svelte';
  import WavesDrawing from '../../drawings/waves/WavesDrawing.svelte';
  import WiringDrawing from '../../drawings/wiring/WiringDrawing.svelte';
  import PutOn from '../../kit/PutOn.svelte';
  import { RigShelf } from '../../kit/shelf.svelte';
  import Choice from '../../parts/Choice.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Parts from './Parts.svelte';
  import Times from './Times.svelte';
  import { endName } from './words';

  const sheet = theSheet();
  const shelf = new RigShelf(sheet);
  const trigger = $derived(sheet.evaluation.trigger);
  const wires = $derived(trigger.lead?.wires ?? []);
  const labels = $derived(
    new Map(
      trigger.diagram?.blocks.flatMap((block) => block.ends.map(({ end, label }) => [end, label] as const))
    )
  );
  const contacts = $derived(trigger.switch?.wires ?? []);
  const joins = $derived((trigger.joins ?? []) as string[][]);
  const camera = $derived(
    sheet.plan.kit.copies.some(({ card }) => card.kind === 'body' || card.kind === 'phone')
  );
  let adding = $state(false);
  let view = $state<'press' | 'beat'>('press');
  /** The switch that a print head meets is part of the chain where there is one. */
  const KINDS = $derived([
    'trigger',
    ...(sheet.plan.shoot.kind === 'print' ? (['head switch'] as const) : []),
    ...(['coupling', 'cable', 'lamp', 'supply', 'body', 'phone'] as const)
  ] as const);

  onMount(() => void shelf.look());

  /** Two ends joined, or parted where they were joined one to the other. */
  function join(a: string, b: string) {
    const same = ([one, other]: string[]) => (one === a && other === b) || (one === b && other === a);
    const left = joins.filter((pair) => !same(pair));
    const next = left.length < joins.length ? left : [...joins, [a, b]];
    sheet.put(
      'trigger.joins',
      next.map(([one, other]) => ({ a: one, b: other }))
    );
  }
</script>

<div class="leaf">
  {#if trigger.diagram}
    <div class="print-alone">
      <p class="print-only title">{sheet.plan.shoot.name}: from what fires to the camera</p>
      <WiringDrawing diagram={trigger.diagram} onjoin={join} />
      {#each trigger.lamps ?? [] as lamp, n (n)}
        <div class="print-only"><WiringDrawing diagram={lamp} /></div>
      {/each}

      <div class="print-only">
        <ol>
          {#each joins as [a = '', b = ''], n (n)}<li>
              {endName(a, labels, wires, contacts)} to {endName(b, labels, wires, contacts)}
            </li>{/each}
        </ol>
        <p>
          Before anything is connected: voltage and polarity measured, nothing tied that has a supply of its
          own. Soldering: eyes, fumes, a stand for the iron. Nothing here is for the mains: a qualified person
          does that.
        </p>
      </div>
    </div>
  {:else if trigger.source}
    <p class="mono-note">
      {#if camera}No contact of the camera is pressed here, so there is nothing to wire. A switch, a pin or a
        remote with a lead would be drawn, as soon as the camera’s card says that it listens to its contacts.
      {:else}Put the camera into the chain as well: how it is wired depends on what it listens to.{/if}
    </p>
  {:else if sheet.evaluation.frames}
    <p class="mono-note">
      A remote, a controller, a switch, a pin of a board, the camera’s own timer: put it into the chain, and
      what it needs besides is told.
    </p>
  {/if}
  <p class="acts no-print">
    {#if trigger.diagram}<span class="label"
        >Touch two ends, one after the other, to join or to part them.</span
      >{/if}
    {#if trigger.diagram && sheet.plan.trigger?.joins !== null}
      <button type="button" class="link" onclick={() => sheet.put('trigger.joins', null)}
        >join all as it belongs</button
      >
    {/if}
    <button type="button" class={trigger.diagram ? 'link' : 'act small'} onclick={() => (adding = true)}
      >Put something into the chain</button
    >
    {#if trigger.diagram}<button type="button" class="link" onclick={() => print()}
        >print it to solder from</button
      >{/if}
  </p>
  {#if trigger.waves?.length}
    <div class="timing no-print">
      <h3>
        One frame in time
        <Choice
          label="How much of the beat is drawn"
          quiet
          options={[
            { value: 'press', label: 'around the press' },
            { value: 'beat', label: 'the whole beat' }
          ]}
          value={view}
          onchoose={(value) => (view = value)}
        />
      </h3>
      <WavesDrawing waves={trigger.waves} interval={trigger.interval_s ?? 0} close={view === 'press'} />
    </div>
    <div class="cols no-print"><Times /><Parts {KINDS} /></div>
  {/if}
</div>
<PutOn {shelf} bind:open={adding} title="Put something into the chain" kinds={KINDS} />

<style>
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 32px;
    margin-top: 8px;
  }
  .print-only {
    display: none;
  }
  @media print {
    .print-only {
      display: block;
    }
    .title {
      font-size: 18px;
      font-weight: 650;
      margin-bottom: 12px;
    }
    ol {
      columns: 2;
      margin: 16px 0;
      padding-left: 24px;
      list-style: decimal;
    }
  }
  @media (max-width: 1000px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
