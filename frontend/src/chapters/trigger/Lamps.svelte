<script lang="ts">
  /** The lamps: when each is lit, what that saves, and what feeds them. */
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import NameField from '../../parts/NameField.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import WiringDrawing from '../../drawings/wiring/WiringDrawing.svelte';
  import { say } from '../../format';
  import { exact } from '../../parts/paths';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const chain = $derived(sheet.plan.trigger!);
  const uses = $derived(chain.lamps ?? []);
  const lamps = $derived(
    sheet.plan.kit.copies.flatMap((copy, at) =>
      copy.card.kind === 'lamp' ? [{ copy, card: copy.card, at }] : []
    )
  );
  const useOf = (key: string) => uses.findIndex((use) => use.lamp === key);
  /** The circuit of each lamp that is switched, in the order of the kit. */
  const circuits = $derived.by(() => {
    const switched = lamps.filter(({ copy }) => {
      const use = uses[useOf(copy.key)];
      return use && use.lit !== 'always';
    });
    const drawn = sheet.evaluation.trigger.lamps ?? [];
    return new Map(switched.map(({ copy }, n) => [copy.key, drawn[n]] as const));
  });
  const LIT = [
    { value: 'always', label: 'always on' },
    { value: 'for the frame', label: 'for the frame alone' },
    { value: 'between frames', label: 'off for the frame' }
  ] as const;
  type Lit = (typeof LIT)[number]['value'];

  /** Exposures of a frame. */
  const exposures = $derived(sheet.plan.beat.bracket_times_s.length || sheet.plan.beat.bracket_frames);
  const inTurn = (use: (typeof uses)[number]) => use.lit === 'for the frame' && use.levels.length > 1;

  function choose(key: string, lit: Lit) {
    const at = useOf(key);
    if (at >= 0) sheet.put(`trigger.lamps.${at}.lit`, lit);
    else sheet.put('trigger.lamps', [...uses, { lamp: key, lit, pin: '', before_s: null, levels: [1] }]);
  }
</script>

<div class="leaf">
  {#each lamps as { copy, card, at } (copy.key)}
    {@const n = useOf(copy.key)}
    {@const use = uses[n]}
    <section>
      <h3>{card.name}</h3>
      <div class="row">
        <Choice
          label="When the {card.name} is lit"
          options={LIT}
          value={(use?.lit ?? 'always') as Lit}
          onchoose={(lit) => choose(copy.key, lit)}
        />
      </div>
      {#if card.on_mains}
        <p class="caution">
          It runs on the mains: switch it by a ready-made socket that takes a signal. What is inside such a
          socket, and inside the lamp, is for a qualified person; charge stays in it after it is unplugged.
        </p>
      {/if}
      {#if use && use.lit !== 'always'}
        {#if circuits.get(copy.key)}
          <WiringDrawing diagram={circuits.get(copy.key)!} />
        {/if}
        <div class="cols">
          <Rows>
            <Row
              label={use.lit === 'between frames'
                ? 'switched off ahead of the shutter'
                : 'switched on ahead of the shutter'}
              ><Editable
                path="trigger.lamps.{n}.before_s"
                label="{card.name} switched ahead of the shutter"
                unit="s"
                value={use.before_s === null ? exact(card.warm_up_s) : undefined}
                empty="as long as it takes"
              /></Row
            >
            <Row label={inTurn(use) ? 'how bright, exposure by exposure' : 'how bright'}
              ><span class="levels"
                >{#each use.levels.slice(0, inTurn(use) ? undefined : 1).keys() as i (i)}<span
                    ><Editable
                      path="trigger.lamps.{n}.levels.{i}"
                      label="level of the {card.name} in exposure {i + 1}"
                      unit="share"
                    />{#if inTurn(use)}<button
                        class="link"
                        aria-label="leave out the level of exposure {i + 1}"
                        onclick={() => sheet.drop(`trigger.lamps.${n}.levels.${i}`)}>×</button
                      >{/if}</span
                  >{/each}{#if use.lit === 'for the frame' && use.levels.length < exposures}<button
                    class="link"
                    onclick={() =>
                      sheet.put(`trigger.lamps.${n}.levels`, [...use.levels, use.levels.at(-1)!])}
                    >one for the next exposure</button
                  >{/if}</span
              ></Row
            >
            <Row label="comes on in"><span>{say(exact(card.warm_up_s), 's')}</span></Row>
            <Row label="the beat gives lamps" path="beat.warm_s" unit="s" />
            <Row label="pin that switches it"
              ><NameField
                path="trigger.lamps.{n}.pin"
                label="pin that switches the {card.name}"
                value={use.pin ?? ''}
              /></Row
            >
          </Rows>
          <Rows>
            <FigureRow label="lit" figure="trigger.lamp.{at}.share" />
            <FigureRow label="energy saved" figure="trigger.lamp.{at}.saved" />
            <FigureRow label="heat, on average" figure="trigger.lamp.{at}.heat" />
            <FigureRow label="its relay is switched" figure="trigger.lamp.{at}.cycles" />
            <FigureRow label="with as much daylight" figure="trigger.lamp.{at}.mixed" />
          </Rows>
        </div>
      {/if}
    </section>
  {:else}
    <p class="mono-note">
      No lamp is in the kit of this shoot. One that is put into the chain can be lit for the frame alone, and
      what that saves is told here.
    </p>
  {/each}
  {#if lamps.length}
    <section>
      <h3>What feeds them</h3>
      <Rows>
        <FigureRow label="the lamps draw" figure="trigger.drawn" />
        <Row label="of the lead’s ground they share">
          <Editable path="trigger.ground_mm" label="of the lead’s ground the lamps share" unit="mm" />
        </Row>
        {#if chain.ground_mm}
          <Row label="a metre of it has" path="trigger.ground_ohm_per_m" unit="Ω/m" />
          <FigureRow label="the ground is lifted by" figure="trigger.lifted" />
        {/if}
      </Rows>
      <p class="label">
        A fuse in the lead at the supply; polarity measured before anything is connected; each lamp tried ten
        times, on and off.
      </p>
    </section>
  {/if}
</div>

<style>
  .row {
    margin: 4px 0 8px;
  }
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 36px;
  }
  .levels {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    align-items: baseline;
  }
  .caution {
    border-left: 3px solid var(--mind);
    padding-left: 10px;
    max-width: 70ch;
    margin: 6px 0;
  }
  section :global(.rows) {
    max-width: 560px;
  }
  @media (max-width: 760px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
