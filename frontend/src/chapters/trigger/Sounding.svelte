<script lang="ts">
  /** Readings of a meter between wires, what they come to, and the one to take next. */
  import type { components } from '../../api/schema';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    thing: 'lead' | 'switch' | 'pads';
  }
  let { thing }: Props = $props();
  type Meter = components['schemas']['Meter'];
  type Asked = Required<Pick<Meter, 'ask' | 'stage' | 'a' | 'b'>>;
  const sheet = theSheet();
  const at = $derived(`trigger.${thing}`);
  const told = $derived(sheet.plan.trigger![thing]!);
  const found = $derived(sheet.evaluation.trigger[thing]);
  const readings = $derived(told.readings ?? []);
  const wires = $derived(told.wires);
  const STAGE = $derived(
    thing !== 'switch'
      ? ({ rest: 'at rest', half: 'at half press', full: 'at full press' } as const)
      : ({ rest: 'at rest', full: 'pressed' } as const)
  );
  const WORDS = $derived(
    {
      lead: { one: 'wire', all: 'the wires of the lead', these: 'these wires' },
      switch: { one: 'contact', all: 'the contacts of the switch', these: 'this switch' },
      pads: { one: 'pad', all: 'the pads of the remote’s button', these: 'these pads' }
    }[thing]
  );
  const after = $derived(found?.next);
  let own = $state<Asked>({
    ask: 'closed',
    stage: 'rest',
    a: 0,
    b: 1
  });

  const put = (next: Meter[]) => sheet.put(`${at}.readings`, next);
  const add = ({ ask, stage, a, b }: Asked, yes: boolean) => put([...readings, { ask, stage, a, b, yes }]);
  const DOES = { focuses: ['focuses', 'focus'], fires: ['fires', 'fire'] } as const;
  const said = (one: Meter) =>
    one.ask === 'focuses' || one.ask === 'fires'
      ? `${wires[one.a]} touching ${wires[one.b]} ${one.yes ? DOES[one.ask][0] : `does not ${DOES[one.ask][1]}`}`
      : one.ask === 'above'
        ? `${wires[one.a]} stands ${one.yes ? '' : 'not '}above ${wires[one.b]}, ${thing === 'pads' ? 'switched on' : 'camera on'}`
        : `${wires[one.a]} and ${wires[one.b]} ${one.yes ? 'beep' : 'do not beep'} ${STAGE[(one.stage ?? 'rest') as 'rest']}`;
  /** The next reading belongs to the readings before it: a second press of a button is no answer to it. */
  function answer(yes: boolean) {
    if (after && !sheet.answering) add(after, yes);
  }
  const question = $derived(
    after &&
      (after.ask === 'focuses' || after.ask === 'fires'
        ? `Put the cell into the remote and switch the camera on. Touch ${wires[after.a]} and ${wires[after.b]} with a piece of wire: does ${after.ask === 'focuses' ? 'the camera focus' : 'it take a frame'}?`
        : after.ask === 'above' && thing === 'pads'
          ? `Put the cell into the remote. Set the meter to volts, its red tip on ${wires[after.a]}, the black one on ${wires[after.b]}: does it show more than half a volt?`
          : after.ask === 'above'
            ? `Plug it into the camera and switch that on. Set the meter to volts, its red tip on ${wires[after.a]}, the black one on ${wires[after.b]}: does it show more than half a volt?`
            : `Set the meter to beep, a tip on ${wires[after.a]} and one on ${wires[after.b]}. Does it beep ${STAGE[after.stage as 'rest']}${thing === 'pads' ? ', the cell out' : ''}?`)
  );

  // Each by its own place: the next is often typed before the last has come back.
  const rename = (n: number, name: string) => void sheet.set(`${at}.wires.${n}`, name.trim());
  function fewer(n: number) {
    const kept = readings.filter(({ a, b }) => a !== n && b !== n);
    const down = (number: number) => (number > n ? number - 1 : number);
    sheet.put(at, {
      wires: wires.filter((_, at) => at !== n),
      readings: kept.map((one) => ({ ...one, a: down(one.a), b: down(one.b) }))
    });
  }
  function more() {
    const names =
      thing === 'pads'
        ? ['upper pad', 'lower pad', 'outer pad']
        : ['blue', 'green', 'black', 'shield', 'tip', 'ring', 'sleeve'];
    const name = names.find((one) => !wires.includes(one)) ?? `${WORDS.one} ${wires.length + 1}`;
    sheet.put(`${at}.wires`, [...wires, name]);
  }
  const asked = $derived<Asked>({
    ...own,
    stage: own.ask === 'closed' ? own.stage : 'rest'
  });
</script>

<ul class="wires" aria-label={WORDS.all}>
  {#each wires as wire, n (n)}
    {@const role = found?.wires[n]?.role}
    <li>
      <input
        class="field"
        value={wire}
        maxlength="40"
        aria-label="{WORDS.one} {n + 1}, as you call it"
        onchange={(event) => rename(n, event.currentTarget.value)}
      />
      <b class:open={!role}>{role === 'nothing' ? 'leads nowhere' : (role ?? 'not known yet')}</b>
      {#if wires.length > 2}<button
          type="button"
          class="link"
          aria-label="take {wire} away"
          onclick={() => fewer(n)}>drop</button
        >{/if}
    </li>
  {/each}
</ul>
{#if wires.length < 6}<button type="button" class="link" onclick={more}>+ {WORDS.one}</button>{/if}

{#if thing === 'lead'}
  <p class="label">
    What beeps is measured on the side that has the button, volts on the side that is plugged into the camera.
  </p>
{/if}
{#if found?.against.length}
  <p role="alert" class="against">
    These readings cannot all be true: one of {found.against.length === 1
      ? 'them is wrong'
      : 'the marked ones was misread, or two wires touch'}. Take them again.
  </p>
{:else if after && question}
  <div class="next" role="group" aria-label="the next reading" aria-busy={sheet.answering}>
    <p><b>Next:</b> {question}</p>
    <p class="acts">
      <button type="button" class="act small" onclick={() => answer(true)}>Yes</button>
      <button type="button" class="act quiet small" onclick={() => answer(false)}>No</button>
      <span class="label"
        >{after.settles ? 'this one settles it' : `${found?.left} ways to name them are left`}</span
      >
    </p>
  </div>
{:else if found}
  <p class="done">
    {found.wires.every(({ role }) => role)
      ? 'All named.'
      : 'No reading tells more: what is open makes no difference, or it has to be tried.'}
  </p>
{/if}

{#if readings.length}
  <ol>
    {#each readings as one, n (n)}
      <li class:wrong={found?.against.includes(n)}>
        {said(one)}
        <button
          type="button"
          class="link"
          onclick={() => put(readings.map((r, m) => (m === n ? { ...r, yes: !r.yes } : r)))}
          >the other way</button
        >
        <button
          type="button"
          class="link"
          aria-label="drop reading {n + 1}"
          onclick={() => put(readings.filter((_, m) => m !== n))}>drop</button
        >
      </li>
    {/each}
  </ol>
{/if}
<details>
  <summary>A reading of your own</summary>
  <p class="own">
    <select class="field" bind:value={own.a} aria-label="one wire"
      >{#each wires as wire, n (n)}<option value={n}>{wire}</option>{/each}</select
    >
    {#if thing !== 'switch'}<select class="field" bind:value={own.ask} aria-label="what is read"
        ><option value="closed">with</option><option value="above">in volts above</option
        >{#if thing === 'pads'}<option value="focuses">touched, it focuses:</option><option value="fires"
            >touched, it fires:</option
          >{/if}</select
      >{:else}with{/if}
    <select class="field" bind:value={own.b} aria-label="the other wire"
      >{#each wires as wire, n (n)}<option value={n}>{wire}</option>{/each}</select
    >
    {#if own.ask === 'closed'}<select class="field" bind:value={own.stage} aria-label="when"
        >{#each Object.entries(STAGE) as [stage, label] (stage)}<option value={stage}>{label}</option
          >{/each}</select
      >{/if}
    <button type="button" class="act quiet small" disabled={own.a === own.b} onclick={() => add(asked, true)}
      >Yes</button
    >
    <button type="button" class="act quiet small" disabled={own.a === own.b} onclick={() => add(asked, false)}
      >No</button
    >
  </p>
</details>
<button type="button" class="link" onclick={() => sheet.put(at, null)}>forget {WORDS.these}</button>

<style>
  .wires li {
    display: flex;
    align-items: baseline;
    gap: 12px;
    border-top: 1px solid var(--hair);
    padding: 3px 0;
  }
  .wires .field {
    width: 130px;
  }
  .open {
    color: var(--second);
    font-weight: 450;
  }
  .next {
    border-left: 3px solid var(--ink);
    padding: 4px 0 4px 12px;
    margin: 10px 0;
  }
  .next p:first-child {
    font-size: 15px;
    max-width: 56ch;
  }
  ol {
    list-style: decimal;
    padding-left: 22px;
    margin: 8px 0;
  }
  .wrong,
  .against {
    color: var(--stop);
  }
  .own {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: baseline;
    margin: 8px 0;
  }
  .own .field {
    width: auto;
  }
  .done {
    margin: 8px 0;
    font-weight: 600;
  }
</style>
