<script lang="ts">
  /** What the camera lives on, and where its frames go: two levels over the season, and what makes them fall. */
  import DayField from '../../parts/DayField.svelte';
  import Levels from '../../drawings/season/Levels.svelte';
  import { number, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import PutOnPart from './PutOnPart.svelte';

  const sheet = theSheet();
  const season = $derived(sheet.evaluation.season);
  const plan = $derived(sheet.plan.season!);
  const power = $derived(plan.powering!);
  const panel = $derived(season.fed_by === 'panel');
  const battery = $derived(sheet.plan.kit?.copies?.some(({ card }) => card.kind === 'battery') ?? false);
  const box = $derived(sheet.plan.kit?.copies?.find(({ card }) => card.kind === 'box')?.card);
  const heated = $derived(box?.kind === 'box' && (box.heater_w != null || power.heater !== 'never'));
  const fed = $derived(
    {
      nothing: 'Nothing of the kit feeds it',
      battery: 'A battery feeds it',
      panel: 'A battery and the sun feed it',
      mains: `The mains feeds it, with ${battery ? 'a' : 'no'} battery behind`
    }[season.fed_by || 'nothing']
  );
  const most = $derived(Math.max(1, ...(season.months ?? []).flatMap(({ given, drawn }) => [given, drawn])));
  const HEATS = ['never', 'always', 'at night', 'below the dew point'] as const;
  const REGULATORS = ['none', 'linear', 'switching'] as const;
</script>

<div class="cols">
  <div>
    {#if season.levels?.charge?.length || season.levels?.fill?.length}<Levels {season} />{/if}
    <section>
      <h3>{fed}</h3>
      {#if season.fed_by === 'nothing'}
        <p class="mono-note">
          A battery, a panel or a supply from the mains on the rig, and it is told how long that lasts.
        </p>
      {/if}
      <PutOnPart kinds={['battery', 'panel', 'supply', 'card']} label="+ battery, panel, supply or card" />
      {#if season.draws?.length && season.fed_by !== 'nothing'}
        <table>
          <thead><tr><th>draws</th><th>on average</th><th>share</th></tr></thead>
          <tbody>
            {#each season.draws as draw, n (n)}
              <tr>
                <td>{draw.name}</td>
                <td>{draw.known ? write(Number(draw.watts.toPrecision(3)), 'W') : 'not known'}</td>
                <td class="bar"
                  >{#if draw.known}<i style:width="{draw.share * 100}%"></i>{/if}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </section>
    {#if season.months?.length}
      <section>
        <h3>Sun and need, a usual day of each month</h3>
        <ul class="months">
          {#each season.months as month (month.name)}
            <li>
              <span>{month.name}</span>
              <span class="scale"
                ><i style:width="{(month.given / most) * 100}%"></i><b
                  style:left="{(month.drawn / most) * 100}%"
                ></b></span
              >
              <span class="wh"
                >{number(Math.round(month.given), 6)} Wh for {number(Math.round(month.drawn), 6)}</span
              >
            </li>
          {/each}
        </ul>
        <p class="label">Estimated from a clear sky. A mark says what is drawn.</p>
      </section>
    {/if}
  </div>
  <div>
    <section>
      <h3>Card</h3>
      <Rows>
        <FigureRow label={sheet.figure('season.picture')?.label ?? 'a picture'} figure="season.picture" />
        <Row label="weighed: a picture has"
          ><Editable
            path="season.storing.frame_mb"
            label="megabytes of a picture"
            unit="MB"
            empty="not yet"
          /></Row
        >
        <Row label="kept free on the card" path="season.storing.reserve" unit="share" />
        <FigureRow label="a card holds" figure="season.card" />
        <FigureRow label="all frames" figure="season.all" />
        <Row label="kept in so many places" path="season.storing.copies" min={1} />
        <FigureRow label="to be kept, in all" figure="season.kept" />
        <Row label="file number now" path="season.storing.counter_at" />
        <Row label="last number before 1 again" path="season.storing.counter_last" min={99} />
        <FigureRow label="numbers start again" figure="season.rolls" />
        <FigureRow label="shutter, by the end" figure="season.shutter" />
      </Rows>
    </section>
    {#if season.fed_by !== 'nothing'}
      <section>
        <h3>Power</h3>
        <Rows>
          <FigureRow label="drawn on average" figure="season.average" />
          <FigureRow label="drawn in a day" figure="season.a_day" />
          <FigureRow label="usable charge" figure="season.usable" />
          <FigureRow label="the battery alone lasts" figure="season.lasts" />
          <FigureRow label="bridges a cut of" figure="season.bridges" />
          <FigureRow label={sheet.figure('season.worst')?.label ?? ''} figure="season.worst" />
          {#if battery}
            <Row label="lost to age" path="season.powering.aged" unit="share" />
            <Row label="coldest night"
              ><Editable
                path="season.climate.coldest_c"
                label="coldest night"
                unit="°C"
                min={-90}
                empty="not known"
              /></Row
            >
          {/if}
          {#if season.fed_by === 'mains' && battery}
            <Row label="the mains may fail for" path="season.powering.outage_s" unit="s" />
          {/if}
          {#if panel}
            <Row label="panels" path="season.powering.panels" min={1} />
            <Row label="tilted from the ground" path="season.powering.tilt_deg" unit="deg" />
            <Row label="looking to (bearing)" path="season.powering.toward_deg" unit="deg" />
            <Row label="of a clear day, usually" path="season.climate.usual" unit="share" />
            <Row label="cloudy days in a row" path="season.climate.cloudy_days" />
            <Row label="which give of a clear day" path="season.climate.cloudy" unit="share" />
            <Row label="beginning on"
              ><DayField
                label="first of the cloudy days"
                value={plan.climate!.cloudy_from}
                onday={(day) => sheet.put('season.climate.cloudy_from', day)}
                optional
              />{#if !plan.climate!.cloudy_from}<span class="label"> the worst day of all</span>{/if}</Row
            >
          {/if}
        </Rows>
        {#if battery}
          <Tick checked={power.timer ?? false} onchange={(on) => sheet.put('season.powering.timer', on)}
            >a timer cuts the camera’s power between windows</Tick
          >
          <p class="label">what makes the camera’s voltage</p>
          <Choice
            label="regulator"
            options={REGULATORS.map((value) => ({ value, label: value }))}
            value={power.regulator ?? 'switching'}
            onchoose={(value) => sheet.put('season.powering.regulator', value)}
            quiet
          />
        {/if}
        {#if heated}
          <p class="label">the heater runs</p>
          <Choice
            label="when the heater runs"
            options={HEATS.map((value) => ({ value, label: value }))}
            value={power.heater ?? 'never'}
            onchoose={(value) => sheet.put('season.powering.heater', value)}
            quiet
          />
          {#if power.heater === 'below the dew point'}
            <Rows><Row label="of a night that is" path="season.climate.dewy" unit="share" /></Rows>
          {/if}
        {/if}
      </section>
    {/if}
  </div>
</div>

<style>
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1.15fr) minmax(300px, 0.85fr);
    gap: 0 28px;
  }
  section {
    margin-bottom: 12px;
  }
  table {
    width: 100%;
  }
  th {
    text-align: left;
    font-size: 12px;
    font-weight: 400;
    color: var(--second);
  }
  td {
    border-top: 1px solid var(--hair);
    padding: 3px 8px 3px 0;
  }
  .bar {
    width: 34%;
  }
  i {
    display: block;
    height: 9px;
    min-width: 1px;
    background: var(--ink);
  }
  .months li {
    display: grid;
    grid-template-columns: 5.5em 1fr 9.5em;
    gap: 8px;
    align-items: center;
  }
  .scale {
    position: relative;
  }
  .scale i {
    background: var(--wash2);
    border: 1px solid var(--second);
  }
  .scale b {
    position: absolute;
    top: -3px;
    width: 2px;
    height: 15px;
    background: var(--ink);
  }
  .wh {
    text-align: right;
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
