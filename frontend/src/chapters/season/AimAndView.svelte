<script lang="ts">
  /** Whether it still looks where it did, what will stand before it, and the sun on its path through the year. */
  import DayField from '../../parts/DayField.svelte';
  import { number, write } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import Tick from '../../parts/Tick.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const season = $derived(sheet.evaluation.season);
  const plan = $derived(sheet.plan.season!);
  const aims = $derived(season.aims ?? []);
  const things = $derived(season.obstacles ?? []);
  const hour = (minutes: number) => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
  const sunny = $derived((season.glare ?? []).reduce((sum, one) => sum + one.days, 0));
</script>

<div class="cols">
  <section aria-label="aim">
    <h3>Aim, against the reference frame</h3>
    <p class="mono-note">
      The frame that is taken when all is set up is the reference. After each visit lay the next frame over it
      and type in how far something that stands still has moved.
    </p>
    {#each aims as aim, n (n)}
      <article>
        <p class="line">
          <span class="label">from</span>
          <DayField
            label="day of comparison {n + 1}"
            value={aim.on}
            onday={(day) => sheet.put(`season.aims.${n}.on`, day)}
          />
          <span class="label">on</span>
          <button
            type="button"
            class="link"
            aria-label="take it out: comparison {n + 1}"
            onclick={() => sheet.drop(`season.aims.${n}`)}>take it out</button
          >
        </p>
        <Rows>
          <Row
            label="to the right"
            path="season.aims.{n}.across_px"
            name="to the right {n + 1}"
            unit="px"
            min={-20000}
          />
          <Row
            label="downwards"
            path="season.aims.{n}.down_px"
            name="downwards {n + 1}"
            unit="px"
            min={-20000}
          />
          <Row
            label="clockwise"
            path="season.aims.{n}.turned_deg"
            name="clockwise {n + 1}"
            unit="deg"
            min={-45}
          />
          <Row label="it has moved by"
            ><Working figure="aim.{n}.far" /> <span class="label">or</span>
            <Working figure="aim.{n}.deg" /></Row
          >
          <Row label="crop begins at">{number(aim.left_px, 6)}, {number(aim.top_px, 6)} px</Row>
        </Rows>
      </article>
    {/each}
    {#if aims.length}
      <Rows><FigureRow label="left of the picture, across" figure="aim.left" /></Rows>
      <p class="label">
        Cut this width from every frame, from where its crop begins, and all of them lie on one another.
      </p>
    {/if}
    <button type="button" class="act quiet small" onclick={() => sheet.begin('season.aims')}
      >+ a comparison</button
    >
  </section>
  <div>
    <section aria-label="what will stand in the view">
      <h3>What will stand in the view</h3>
      {#each things as thing, n (n)}
        {@const at = `season.obstacles.${n}`}
        {@const one = plan.obstacles?.[n]}
        <article>
          <p class="line">
            <input
              class="field name"
              maxlength="120"
              aria-label="what stands in the view {n + 1}"
              value={one?.name ?? ''}
              onchange={(event) =>
                event.currentTarget.value.trim() && sheet.put(`${at}.name`, event.currentTarget.value)}
            />
            <button
              type="button"
              class="link"
              aria-label="take it out: {thing.name}"
              onclick={() => sheet.drop(at)}>take it out</button
            >
          </p>
          <Rows>
            <Row label="from"
              ><DayField
                label="from when {thing.name}"
                value={one?.from_day}
                onday={(day) => sheet.put(`${at}.from_day`, day)}
              /></Row
            >
            <Row label="until"
              ><DayField
                label="until when {thing.name}"
                value={one?.to_day}
                onday={(day) => sheet.put(`${at}.to_day`, day)}
                optional
              /></Row
            >
            <Row label="high then" path="{at}.tall_mm" name="height of {thing.name}" unit="mm" />
            <Row
              label="grows in a month"
              path="{at}.grows_mm_month"
              name="growth of {thing.name}"
              unit="mm"
            />
            <Row label="away" path="{at}.away_mm" name="distance of {thing.name}" unit="mm" />
          </Rows>
          <p class="told">
            {#if thing.enters}From {thing.enters} on it reaches over a quarter of the picture, by the end over
              {write(Number(thing.share.toPrecision(2)), 'share')}: in {number(thing.frames, 9)} frames.
            {:else}It stays below a quarter of the picture.{/if}
          </p>
          <Tick checked={one?.belongs ?? false} onchange={(on) => sheet.put(`${at}.belongs`, on)}
            >it belongs to the picture</Tick
          >
        </article>
      {/each}
      <button type="button" class="act quiet small" onclick={() => sheet.begin('season.obstacles')}
        >+ something that grows or is put up</button
      >
    </section>
    <section aria-label="sun in the picture">
      <h3>The sun in the picture</h3>
      {#if season.glare == null}
        <p class="mono-note">
          Told as soon as the place and the bearing of the camera are known: <Editable
            path="rig.normal_bearing_deg"
            label="bearing of the camera"
            unit="deg"
            empty="which way it looks"
          />
        </p>
      {:else if !season.glare.length}
        <p class="told">On no day of it, as it stands at the first frame.</p>
      {:else}
        <p class="told">
          On {number(sunny, 6)} days, whether a frame is taken then or not: what stands open may be burnt.
        </p>
        <ul>
          {#each season.glare as one (one.said)}
            <li>
              {one.said}
              <span class="label">between {hour(one.from_min)} and {hour(one.to_min)}</span>
            </li>
          {/each}
        </ul>
        <p class="label">Never look through a finder at the sun. A hood, another bearing, or more tilt.</p>
      {/if}
    </section>
    <section aria-label="who would notice">
      <h3>Who would notice</h3>
      {#if sheet.plan.trigger?.look}
        <p class="told">Somebody looks from afar; an alarm tells when no frame comes.</p>
      {/if}
      <Rows>
        <FigureRow label="alarm after" figure="trigger.look.alarm" />
        <FigureRow label="lost before anybody notices, about" figure="season.unnoticed" />
      </Rows>
    </section>
  </div>
</div>

<style>
  button.link {
    min-height: 24px;
    padding: 2px 0;
  }
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 32px;
  }
  section {
    margin-bottom: 14px;
  }
  article {
    border-top: 1px solid var(--hair);
    padding: 4px 0 6px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: baseline;
  }
  .name {
    flex: 1 1 12em;
    font-weight: 550;
  }
  .told {
    font-weight: 550;
    max-width: 60ch;
  }
  ul {
    list-style: none;
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
    input {
      min-height: 44px;
    }
  }
</style>
