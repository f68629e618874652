<script lang="ts">
  /** The rig: put together from ground to camera out of kit cards, drawn from the side, and checked. */
  import { keyed } from '../../parts/keyed';
  import { onMount } from 'svelte';
  import { api, sentence, type CardLine, type Changed } from '../../api/client';
  import PartOutline from '../../drawings/part/PartOutline.svelte';
  import RigDrawing from '../../drawings/rig/RigDrawing.svelte';
  import { fill, write } from '../../format';
  import { KIND_NAMES, SHELVES } from '../../kit/fields';
  import { exact } from '../../parts/paths';
  import Editable from '../../parts/Editable.svelte';
  import Modal from '../../parts/Modal.svelte';
  import Working from '../../parts/Working.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const rig = $derived(sheet.evaluation.rig);
  const copies = $derived(sheet.plan.kit.copies);
  const standing = $derived(sheet.plan.rig.standing);
  let shelf = $state.raw<CardLine[] | null>(null);
  let changed = $state.raw<Changed[]>([]);
  let trouble = $state('');
  let adding = $state(false);
  let chosen = $state<number | null>(null);

  onMount(look);
  async function look() {
    try {
      shelf = (await api.GET('/api/kit')).data?.cards ?? [];
    } catch (error) {
      trouble = sentence(error);
    }
  }
  // Asked again whenever the copies change: an update taken makes its offer go away.
  $effect(() => {
    void compare(sheet.plan);
  });
  async function compare(plan: typeof sheet.plan) {
    if (!plan.kit.copies.some((copy) => copy.card_id)) {
      changed = [];
      return;
    }
    try {
      const answer = await api.POST('/api/kit/compare', { body: { plan } });
      if (answer.data && plan === sheet.plan) changed = answer.data.changed;
    } catch {
      // The offer comes back with the next change; nothing depends on it.
    }
  }

  type Copy = (typeof copies)[number];
  const fit = (next: Copy[]) => sheet.change([{ do: 'fit', copies: next }]);

  const put = (lines: CardLine[]) =>
    sheet.change([
      { do: 'put', cards: lines.map(({ id, version, card }) => ({ card_id: id, version, card })) }
    ]);
  function off(at: number) {
    chosen = null;
    void fit(copies.filter((_, i) => i !== at));
  }
  /** Up is towards the camera. */
  const move = (key: string, by: 1 | -1) => sheet.change([{ do: 'part', key, by }]);
  function update(one: Changed) {
    void fit(copies.map((copy) => (copy.key === one.key ? one.copy_now : copy)));
  }

  const numbered = $derived(copies.map((copy, i) => ({ copy, i })));
  const chain = $derived(numbered.filter(({ copy }) => 'above' in copy.card));
  const others = $derived(numbered.filter(({ copy }) => !('above' in copy.card)));
  const snags = $derived(sheet.evaluation.snags.filter((snag) => snag.chapter === 'rig'));
  const total = $derived(copies.reduce((sum, copy) => sum + (copy.card.mass_g ?? 0), 0));
  /** A rig to begin with: the first of each thing that is on the shelf. */
  const starters = $derived(
    ['support', 'axis', 'body', 'lens', 'trigger']
      .map((kind) => shelf?.find((line) => line.card.kind === kind))
      .filter((line): line is CardLine => line !== undefined)
  );
  let making = $state(false);
  /** From nothing: a card of each thing that a rig needs, with its defaults, and the rig from them. */
  async function usual() {
    making = true;
    try {
      for (const kind of ['support', 'axis', 'body', 'lens', 'trigger'] as const) {
        await api.POST('/api/kit', { body: { kind, name: '' } });
      }
      await look();
      await put(starters);
    } catch (error) {
      trouble = sentence(error);
    } finally {
      making = false;
    }
  }
</script>

<section class="rig">
  <header>
    <h2>{rig ? 'From the ground to the camera' : 'No rig yet'}</h2>
    <p class="label">
      {#if rig}Seen from the side, to scale. {copies.length} cards, {write(total, 'g')} to carry.
      {:else}Put it together out of what you own; the plan takes its figures over.{/if}
    </p>
    <button type="button" class="act" onclick={() => (adding = true)}>Put something on</button>
  </header>
  {#if trouble}<p role="alert">{trouble}</p>{/if}

  {#each changed as one (one.key)}
    <div class="changed" role="status">
      <p>
        <b>{one.name}</b> has changed on the shelf since: {one.differences.join('; ')}.
        {#each one.effects as effect, i (i)}<span>{effect} </span>{:else}<span
            >The plan comes out the same.</span
          >{/each}
      </p>
      <button type="button" class="act quiet" onclick={() => update(one)}>Take it over</button>
    </div>
  {/each}

  {#if rig}
    <RigDrawing {rig} {chosen} onchoose={(index) => (chosen = chosen === index ? null : index)} />
  {:else}
    <div class="empty">
      <p>
        {#if shelf?.length === 0}The shelf is empty.
          <button type="button" class="act" disabled={making} onclick={() => void usual()}
            >Make the usual cards and put them together</button
          >, a tripod, a rail, a body, a lens and a trigger with figures that fit most, to be changed as you
          find out; or <a class="link" href="/kit" onclick={router.follow}>make cards of what you own</a>,
          each with sensible figures from the start.
        {:else if starters.length}
          To begin with: {starters.map((line) => line.card.name).join(', ')}.
          <button type="button" class="act" onclick={() => void put(starters)}>Put these together</button>
        {/if}
      </p>
    </div>
  {/if}

  <div class="below">
    <div>
      <h3>The chain <span class="label">from the camera down</span></h3>
      <ol>
        {#each [...chain].reverse() as { copy, i } (copy.key)}
          <li class:chosen={chosen === i}>
            <button type="button" class="part" onclick={() => (chosen = chosen === i ? null : i)}
              >{copy.card.name}</button
            >
            <span class="label">
              {write(copy.card.mass_g ?? 0, 'g')}
              {#if sheet.figure(`rig.reserve.${i}`)}
                · carries <Working figure="rig.carried.{i}" /> of {write(
                  (sheet.figure(`rig.reserve.${i}`)?.value ?? 0) +
                    (sheet.figure(`rig.carried.${i}`)?.value ?? 0),
                  'g'
                )}
              {/if}
            </span>
            <span class="tools">
              <button type="button" aria-label="{copy.card.name} up" onclick={() => void move(copy.key, 1)}
                >up</button
              >
              <button type="button" aria-label="{copy.card.name} down" onclick={() => void move(copy.key, -1)}
                >down</button
              >
              <button type="button" aria-label="take {copy.card.name} off" onclick={() => off(i)}>off</button>
            </span>
          </li>
        {/each}
      </ol>
      {#if others.length}
        <h3>Goes along</h3>
        <ol>
          {#each others as { copy, i } (copy.key)}
            <li>
              <span>{copy.card.name}</span>
              <span class="label">{KIND_NAMES[copy.card.kind]}, {write(copy.card.mass_g ?? 0, 'g')}</span>
              <span class="tools"
                ><button type="button" aria-label="take {copy.card.name} off" onclick={() => off(i)}
                  >off</button
                ></span
              >
            </li>
          {/each}
        </ol>
      {/if}
    </div>

    <div>
      <h3>How it stands</h3>
      <dl>
        <div>
          <dt>slope of the rail</dt>
          <dd>
            <Editable
              path="rig.standing.slope_deg"
              label="slope of the rail"
              value={standing.slope_deg}
              unit="deg"
              min={-90}
            />
          </dd>
        </div>
        <div>
          <dt>off level by</dt>
          <dd>
            <Editable
              path="rig.standing.level_error_deg"
              label="off level by"
              value={standing.level_error_deg}
              unit="deg"
            />
          </dd>
        </div>
        {#if sheet.figure('rig.horizon')}<div>
            <dt>the horizon tilts by</dt>
            <dd><Working figure="rig.horizon" /></dd>
          </div>{/if}
        <div>
          <dt>support under the rail at</dt>
          <dd>
            <Editable
              path="rig.standing.rail_at"
              label="support under the rail at"
              value={standing.rail_at}
              unit="share"
            />
          </dd>
        </div>
        {#each [['rig.centre.x', 'centre of mass, along'], ['rig.centre.y', 'centre of mass, up'], ['rig.tips.below', 'tips below'], ['rig.tips.above', 'tips past'], ['rig.sag', 'sag'], ['rig.sag_own', 'sag of its own weight'], ['rig.nod', 'the camera nods by'], ['rig.torque', 'torque needed'], ['rig.lets_go', 'pulls when unpowered']] as [key, label] (key)}
          {#if key && sheet.figure(key)}
            <div>
              <dt>{label}</dt>
              <dd><Working figure={key} /></dd>
            </div>
          {/if}
        {/each}
        {#if sheet.figure('rig.current')}
          <div>
            <dt>motors draw at most</dt>
            <dd><Working figure="rig.current" /></dd>
          </div>
          <div>
            <dt>
              {#if sheet.plan.rig.lead}
                lead of <Editable
                  path="rig.lead.length_mm"
                  label="length of the lead"
                  value={sheet.plan.rig.lead.length_mm}
                  unit="mm"
                  min={1}
                />, <Editable
                  path="rig.lead.area_mm2"
                  label="cross-section of the lead"
                  value={sheet.plan.rig.lead.area_mm2}
                  unit="mm²"
                  min={0.01}
                /> loses
              {:else}lead to the supply{/if}
            </dt>
            <dd>
              {#if sheet.plan.rig.lead}<Working figure="rig.lost" />
              {:else}<button
                  type="button"
                  class="link"
                  onclick={() =>
                    void sheet.apply([{ path: 'rig.lead', value: { length_mm: 1500, area_mm2: 0.5 } }])}
                  >work it out</button
                >{/if}
            </dd>
          </div>
        {/if}
        <div>
          <dt>settles in</dt>
          <dd>
            <Editable path="beat.settle_s" label="settle" value={exact(sheet.plan.beat.settle_s)} unit="s" />
          </dd>
        </div>
      </dl>
    </div>

    <div>
      <h3>What the drives are told</h3>
      {#each sheet.evaluation.drives as drive (drive.axis)}
        <p class="drive">
          <b>{drive.axis}</b> <span class="label">{drive.drive}</span><br />
          {drive.words}.
          {#each ['steps', 'per_frame', 'ripple', 'setting', 'rate', 'run', 'dial', 'does'] as key (key)}
            {@const name = `drive.${drive.axis}.${key}`}
            {@const figure = sheet.figure(name)}
            {#if figure}<span class="fact">{figure.label} <Working figure={name} /></span>{/if}
          {/each}
        </p>
      {:else}
        <p class="label">No card says yet what moves the axes.</p>
      {/each}
      {#if snags.length}
        <h3 class="next">{snags.length} {snags.length === 1 ? 'snag' : 'snags'}</h3>
        {#each keyed(snags, (one) => one.code + one.path) as { key, it: snag } (key)}
          <div class="snag" data-snag={snag.code} class:stop={snag.severity === 'stop'}>
            <p>
              <b>{snag.severity === 'stop' ? 'Stop.' : snag.severity === 'mind' ? 'Mind.' : 'Note.'}</b>
              {fill(snag.what, snag.slots, sheet.zone)}
            </p>
            {#each snag.fixes as one, i (i)}
              <button
                type="button"
                class="link"
                title={fill(one.consequence, one.slots, sheet.zone)}
                onclick={() => void sheet.apply(one.edits)}>{fill(one.label, one.slots, sheet.zone)}</button
              >{' '}
            {/each}
          </div>
        {/each}
      {/if}
    </div>
  </div>
</section>

<Modal bind:open={adding} title="Put something on the rig">
  {#if shelf === null}<p role="status">Opening the drawer …</p>
  {:else if shelf.length === 0}
    <p>
      The shelf is empty. <a class="link" href="/kit" onclick={router.follow}>Make a card</a> of what you own first.
    </p>
  {:else}
    {#each SHELVES as board (board.title)}
      {@const cards = shelf.filter((line) => board.kinds.includes(line.card.kind))}
      {#if cards.length}
        <h3>{board.title}</h3>
        <div class="board">
          {#each cards as line (line.id)}
            <button
              type="button"
              onclick={() => {
                void put([line]);
                adding = false;
              }}
            >
              <PartOutline card={line.card} tall={board.tall} />
              {line.card.name}
            </button>
          {/each}
        </div>
      {/if}
    {/each}
  {/if}
</Modal>

<style>
  .rig {
    padding: 18px 30px 14px;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 14px;
  }
  h2 {
    font-size: 16px;
  }
  header .act {
    margin-left: auto;
    min-height: 30px;
    padding: 3px 16px;
  }
  .changed {
    display: flex;
    gap: 16px;
    align-items: center;
    justify-content: space-between;
    border-left: 3px solid var(--ink);
    padding: 4px 0 4px 12px;
    margin: 8px 0;
    font-size: 13px;
  }
  .empty {
    padding: 30px 0;
    font-size: 15px;
  }
  .below {
    display: grid;
    grid-template-columns: 1.25fr 1fr 1.25fr;
    gap: 30px;
    margin-top: 8px;
    border-top: 1px solid var(--ink);
    padding-top: 8px;
    font-size: 13px;
  }
  h3 .label {
    margin-left: 8px;
    font-weight: 450;
  }
  ol {
    margin-bottom: 10px;
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 10px;
    border-top: 1px solid var(--hair);
    padding: 3px 0;
  }
  li .label {
    grid-column: 1;
  }
  .part {
    font-weight: 600;
    text-align: left;
    min-height: 24px;
  }
  .chosen {
    background: var(--wash);
  }
  .tools {
    grid-column: 2;
    grid-row: 1 / 3;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .tools button {
    min-width: 24px;
    min-height: 24px;
    color: var(--second);
    text-decoration: underline;
    text-underline-offset: 2px;
  }
  .tools button:hover {
    color: var(--ink);
  }
  dl div {
    display: flex;
    justify-content: space-between;
    border-top: 1px solid var(--hair);
    padding: 2px 0;
  }
  dt {
    color: var(--second);
  }
  .drive {
    border-top: 1px solid var(--hair);
    padding: 4px 0;
  }
  .fact {
    display: inline-block;
    margin-right: 12px;
    color: var(--second);
  }
  .next {
    margin-top: 10px;
  }
  .snag {
    border-left: 3px solid var(--mind);
    padding-left: 10px;
    margin: 6px 0;
  }
  .snag.stop {
    border-left: 6px solid var(--stop);
  }
  .snag .link {
    margin-right: 10px;
    min-height: 24px;
  }
  .board {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
    gap: 4px;
    margin-bottom: 10px;
  }
  .board button {
    text-align: left;
    font-size: 13px;
    padding: 4px;
  }
  .board button:hover {
    background: var(--wash);
  }
  @media (max-width: 1000px) {
    .below {
      grid-template-columns: 1fr;
    }
  }
  @media (max-width: 760px) {
    .rig {
      order: 3;
      padding: 14px 16px;
    }
    .tools button,
    .part {
      min-height: 44px;
      min-width: 44px;
    }
  }
</style>
