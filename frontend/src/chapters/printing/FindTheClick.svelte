<script lang="ts">
  /** Finding the coordinate at which the switch clicks: on the simulated printer first, then on the real one. */
  import { api, got, sentence, type KitCard } from '../../api/client';
  import { duration, number } from '../../format';
  import MeasureSteps from '../../kit/MeasureSteps.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Missing from './Missing.svelte';

  const sheet = theSheet();
  const copies = $derived(sheet.plan.kit.copies);
  const where = $derived(copies.findIndex((copy) => copy.card.kind === 'head switch'));
  const key = $derived.by(() => {
    const card = copies[where]?.card;
    return card?.kind === 'head switch' ? card : null;
  });
  const printer = $derived.by(() => {
    const card = copies.map((copy) => copy.card).find((one) => one.kind === 'printer');
    return card?.kind === 'printer' ? card : null;
  });
  const sign = $derived(key?.side === 'low' ? -1 : 1);
  const low = $derived((key?.axis === 'Y' ? printer?.low_y_mm : printer?.low_x_mm) ?? 0);
  const high = $derived((key?.axis === 'Y' ? printer?.high_y_mm : printer?.high_x_mm) ?? 220);

  let seed = $state(Math.floor(Math.random() * 2 ** 31));
  let at = $state<number>();
  let down = $state(false);
  let broken = $state(false);
  let heard = $state('');
  let readings = $state<number[]>([]);
  let trouble = $state('');
  const start = $derived(sign > 0 ? high - 25 : low + 25);
  const here = $derived(at ?? start);

  const WIDE = 440;
  /** Where a position of the axis stands on the drawing, the switch always to the right. */
  const px = (value: number) => 20 + ((sign > 0 ? value - (high - 30) : low + 30 - value) / 30) * (WIDE - 46);
  const FIXED_TO: Record<string, string> = {
    gantry: 'what rises with the head',
    frame: 'the frame',
    bed: 'the bed'
  };
  const SAID: Record<string, string> = {
    nothing: 'Nothing.',
    click: 'It clicks.',
    'let go': 'It lets go.',
    broken:
      'It cracks. The switch is broken: the real one would be, too. A smaller step finds the click in time.',
    limit: 'The axis is at its limit.'
  };
  /** One after another: each begins where the one before has ended. */
  let before = Promise.resolve();
  const jog = (by: number) => (before = before.then(() => send(by)));
  async function send(by: number) {
    try {
      const told = got(
        await api.POST('/api/bench/jog', {
          body: {
            low,
            high,
            side: key?.side ?? 'high',
            beyond: key?.beyond_mm ?? 2,
            lets_go: key?.lets_go_mm ?? 0.5,
            seed,
            at: here,
            by: by * sign,
            down,
            broken
          }
        })
      );
      at = told.at;
      down = told.down;
      heard = SAID[told.heard] ?? '';
      if (told.heard === 'broken') broken = true;
      if (told.heard === 'click' && Math.abs(by) <= 0.1) readings = [...readings, told.at];
      trouble = '';
    } catch (error) {
      trouble = sentence(error);
    }
  }
  function fresh() {
    seed = Math.floor(Math.random() * 2 ** 31);
    [at, down, broken, heard, readings] = [undefined, false, false, '', []];
  }
  const next = $derived.by(() => {
    if (broken) return 'Take a new switch, and begin again with it.';
    if (readings.length >= 3) return 'Three readings: that is how it is done on the real printer.';
    if (down) return 'Back off by 1 mm, twice, until it lets go.';
    if (!readings.length && !heard.includes('lets go'))
      return 'Go towards it by 1 mm until it clicks. Never by 10 where you cannot see a gap.';
    return `Now by 0.1 mm until it clicks: that is reading ${readings.length + 1}.`;
  });
  /** Each time readings are taken the sheet for them is a fresh one. */
  let taken = $state(0);
  async function keep(card: KitCard) {
    await sheet.apply([{ path: `kit.copies.${where}.card`, value: card as never }]);
    taken += 1;
    return true;
  }
</script>

{#if !key || !printer}
  <Missing />
  {#if !(sheet.evaluation.printing.missing ?? []).length}
    <p class="mono-note">This printer fires by commands: there is no switch to find.</p>
  {/if}
{:else}
  <div class="cols">
    <section>
      <h3>On the simulated printer</h3>
      <p>Its switch clicks somewhere in the last centimetre of {key.axis}; nobody is told where.</p>
      <p class="at" aria-live="polite"><b>{key.axis} {number(here, 6)}</b> <span>{heard}</span></p>
      <svg
        viewBox="0 0 {WIDE} 92"
        role="img"
        aria-label="The head on its way to the switch, seen from the side"
      >
        <path class="rail" d="M0 74H{WIDE}" />
        {#each Array.from({ length: 31 }, (_, n) => n) as n (n)}
          {@const value = sign > 0 ? Math.ceil(high) - 30 + n : Math.floor(low) + 30 - n}
          <path class="tick" d="M{px(value)} 74v{value % 5 ? 4 : 8}" />
          {#if value % 5 === 0}<text x={px(value)} y="91" text-anchor="middle">{value}</text>{/if}
        {/each}
        <rect x={px(here) - 26} y="22" width="26" height="44" />
        <text x={px(here) - 13} y="16" text-anchor="middle">head</text>
        {#each readings as one, n (n)}<path class="read" d="M{px(one)} 18v52" />{/each}
        {#if broken}<path class="crack" d="M{px(here)} 30l8 6l-5 6l9 6l-6 8" />
        {:else if down}<path class="lever" d="M{px(here)} 44h10m0 -10v24h22v-24z" />
        {:else}<text class="unseen" x={WIDE - 6} y="48" text-anchor="end">somewhere here: the switch</text
          >{/if}
      </svg>
      <div class="jogs" role="group" aria-label="Jog">
        {#each [-10, -1, -0.1, 0.1, 1, 10] as by (by)}
          <button
            type="button"
            class="act {by < 0 ? 'quiet' : ''}"
            disabled={broken}
            onclick={() => void jog(by)}>{by < 0 ? `back ${number(-by)}` : `on ${number(by)}`}</button
          >
        {/each}
      </div>
      <p><b>Next:</b> {next}</p>
      {#if readings.length}
        <p>
          Readings: {readings.map((one) => number(one, 6)).join(', ')}.
        </p>
      {/if}
      {#if broken || readings.length >= 3}
        <button type="button" class="link" onclick={fresh}
          >{broken ? 'take a new switch' : 'once more, elsewhere'}</button
        >
      {/if}
      {#if trouble}<p role="alert">{trouble}</p>{/if}
    </section>
    <section>
      <h3>On the real one</h3>
      {#if sheet.evaluation.printing.reading}
        {#key taken}<MeasureSteps
            card={key}
            measure={sheet.evaluation.printing.reading}
            onkeep={keep}
          />{/key}
      {/if}
      <p class="label">
        {key.clicks_mm === null || key.clicks_mm === undefined
          ? 'Not read yet.'
          : `Kept: ${key.axis} ${number(key.clicks_mm, 5)}${key.read_on ? `, read on ${key.read_on}` : ''}.`}
        Read it again after each refit.
      </p>
    </section>
  </div>
{/if}

{#if sheet.evaluation.printing.places?.length}
  <section>
    <h3>Where the switch could go <span class="label">before anything is glued</span></h3>
    <div class="wide">
      <table>
        <thead
          ><tr
            ><th scope="col">fixed to</th><th scope="col">end</th><th scope="col">homing</th><th scope="col"
              >start and purge</th
            ><th scope="col">layers that miss it</th><th scope="col">one stop</th><th scope="col">bed lost</th
            ><td></td></tr
          ></thead
        >
        <tbody>
          {#each sheet.evaluation.printing.places as place (`${place.rides} ${place.axis} ${place.side}`)}
            <tr class:here={place.here}>
              <th scope="row">{FIXED_TO[place.rides]}{place.here ? ' (here now)' : ''}</th>
              <td>{place.axis}, {place.side}</td>
              <td class:bad={place.homing}>{place.homing ? 'runs into it' : 'goes away from it'}</td>
              <td class:bad={place.start}>{place.start ? 'sweep it' : 'stay clear'}</td>
              <td class:bad={place.unreached > 0}>{place.unreached || 'none'}</td>
              <td>{duration(Math.round(place.stop_s * 100) / 100)}</td>
              <td>{place.lost_mm ? `${number(Math.round(place.lost_mm * 10) / 10)} mm` : 'none'}</td>
              <td
                >{#if place.edits?.length}<button
                    type="button"
                    class="link"
                    aria-label="fix it to {FIXED_TO[place.rides]}, {place.axis} {place.side}"
                    onclick={() => void sheet.apply(place.edits ?? [])}>fix it here</button
                  >{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </section>
{/if}

<style>
  .wide {
    overflow-x: auto;
  }
  table {
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 450;
  }
  thead th {
    color: var(--second);
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  .here th,
  .here td {
    font-weight: 650;
  }
  .bad {
    color: var(--stop);
  }
  .bad::before {
    content: '✕ ';
  }
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 0 34px;
  }
  p {
    max-width: 60ch;
    margin-bottom: 8px;
  }
  .at {
    font-size: 24px;
    font-stretch: 92%;
    min-height: 34px;
  }
  .at span {
    font-size: 15px;
    margin-left: 10px;
  }
  svg {
    display: block;
    width: 100%;
    max-width: 520px;
    margin-bottom: 8px;
  }
  path,
  rect {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  rect {
    fill: var(--wash);
  }
  .tick {
    stroke: var(--second);
    stroke-width: 1;
  }
  .read {
    stroke-dasharray: 3 3;
  }
  .crack {
    stroke: var(--stop);
    stroke-width: 2.5;
  }
  text {
    font-size: 11px;
    font-stretch: 86%;
    fill: var(--second);
  }
  .jogs {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-bottom: 10px;
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
    .jogs button {
      min-height: 44px;
    }
  }
</style>
