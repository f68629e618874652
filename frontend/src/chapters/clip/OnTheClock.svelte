<script lang="ts">
  /** The shoot on the clock: which end is held, what comes before, what falls into it, and what the edit asks for. */
  import { clock, day } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import { exact } from '../../parts/paths';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const held = $derived(sheet.plan.shoot.clock);
  const clip = $derived(sheet.plan.clip);
  const at = $derived(sheet.figure('tied.shoot.clock')?.value ?? Date.parse(held.at) / 1000);
  const HAPPENINGS = [
    'sunset',
    'civil dusk',
    'nautical dusk',
    'astronomical dusk',
    'astronomical dawn',
    'nautical dawn',
    'civil dawn',
    'sunrise',
    'moonrise',
    'moonset'
  ];
  /** What is tied to the sky, as the server says it. */
  const words = (path: string) => sheet.figure(`tied.${path}`)?.label ?? 'tied to the sky';

  async function tie(path: string, from: HTMLSelectElement) {
    const name = from.value;
    from.value = '';
    if (name) await sheet.type(path, name);
  }

  const SCHOOLS = {
    stills: 'Stills can be repaired frame by frame, culled, and read at any rate.',
    movie: 'The camera puts the frames together itself: quick to see, but nothing can be repaired or culled.',
    video: 'Sped-up video only suits short events, and holds no more than the video resolution.'
  } as const;
</script>

<div class="cols">
  <section>
    <h3>What the clock holds</h3>
    <Choice
      label="What the clock holds"
      value={held.holds}
      options={[
        { value: 'start', label: 'start at' },
        { value: 'finish', label: 'be done by' }
      ]}
      onchoose={(holds) => void sheet.change([{ do: 'clock', holds }])}
    />
    <p class="big" class:tied={held.tied}>
      {#if held.tied}
        <Editable
          path="shoot.clock.at"
          label={held.holds === 'start' ? 'start' : 'finish'}
          value={null}
          unit="instant"
          shown={words('shoot.clock')}
        />
      {:else}
        <Editable
          path="shoot.clock.at"
          label={held.holds === 'start' ? 'start' : 'finish'}
          value={at}
          unit="instant"
        />
      {/if}
    </p>
    <p class="line">
      {#if held.tied}
        {#if sheet.figure('tied.shoot.clock')}at <Working figure="tied.shoot.clock" /> on{/if}
        <button type="button" class="link" onclick={() => sheet.put('shoot.clock.tied', null)}
          >go by the hour</button
        >,
      {:else}
        <label
          >or with the sky: <select
            aria-label="Tie the clock to the sky"
            value=""
            onchange={(event) => void tie('shoot.clock.at', event.currentTarget)}
          >
            <option value="">by the hour</option>
            {#each HAPPENINGS as name (name)}<option>{name}</option>{/each}
          </select></label
        ><br />
      {/if}
      {day(at, sheet.zone, true)}.
      {#if held.holds === 'start'}Finished at <Working figure="time.finish" />.
      {:else}The first frame is at <Working figure="time.first" />.{/if}
    </p>
    {#if held.holds === 'start' && sheet.plan.frames?.source === 'even'}
      <p class="line">
        {#if held.until}
          until <Editable
            path="shoot.clock.until"
            label="until"
            value={null}
            unit=""
            shown={words('shoot.clock.until')}
          />
          {#if sheet.figure('tied.shoot.clock.until')}at <Working figure="tied.shoot.clock.until" />{/if}
          <button type="button" class="link" onclick={() => sheet.put('shoot.clock.until', null)}
            >as long as its peg says</button
          >
        {:else}
          <label
            >lasts until <select
              aria-label="Let it last until"
              value=""
              onchange={(event) => void tie('shoot.clock.until', event.currentTarget)}
            >
              <option value="">its length is over</option>
              {#each HAPPENINGS as name (name)}<option>{name}</option>{/each}
            </select></label
          >
        {/if}
      </p>
    {/if}
    <p class="line">
      start delay <Editable path="shoot.clock.start_delay_s" label="start delay" unit="s" />
      {#if exact(held.start_delay_s)}press at <Working figure="time.press" /> and walk into the picture{/if}
    </p>
    <h3 class="next">Who calls the frames</h3>
    <Choice
      label="Who calls the frames"
      value={clip.called_by}
      options={[
        { value: 'clock', label: 'the clock' },
        { value: 'event', label: 'an event' }
      ]}
      onchoose={(value) => sheet.put('clip.called_by', value)}
    />
    {#if clip.called_by === 'event'}
      <p class="line">
        A layer, a press, a sensor or a hand: moves and ramps go on per frame, and times are estimates. Frames
        come up to
        <Editable path="clip.event_spread" label="early or late by" unit="share" /> early or late: done between
        <Working figure="time.earliest" /> and <Working figure="time.latest" />.
      </p>
    {/if}
  </section>

  <section>
    <h3>
      Before the start <button
        type="button"
        class="link add"
        onclick={() => sheet.begin('shoot.clock.errands')}>+ something to do</button
      >
    </h3>
    <table>
      <tbody>
        {#each held.errands as errand, i (i)}
          <tr>
            <td class="when"
              ><Working
                figure="time.errand.{i}"
                shown={sheet.figure(`time.errand.${i}`)
                  ? `from ${clock(sheet.figure(`time.errand.${i}`)?.value ?? 0, sheet.zone, false)}`
                  : '–'}
              /></td
            >
            <td>
              <input
                class="field"
                value={errand.name}
                maxlength="120"
                aria-label="errand {i + 1}"
                onchange={(event) =>
                  void sheet.type(`shoot.clock.errands.${i}.name`, event.currentTarget.value)}
              />
            </td>
            <td>
              <Editable path="shoot.clock.errands.{i}.length_s" label="time for {errand.name}" unit="s" />
            </td>
            <td>
              <button
                type="button"
                class="link"
                aria-label="drop {errand.name}"
                onclick={() => sheet.drop(`shoot.clock.errands.${i}`)}>drop</button
              >
            </td>
          </tr>
        {/each}
        <tr class="press">
          <td class="when"
            ><Working
              figure="time.press"
              shown={sheet.figure('time.press')
                ? clock(sheet.figure('time.press')?.value ?? 0, sheet.zone, false)
                : '–'}
            /></td
          >
          <td colspan="3">press start</td>
        </tr>
      </tbody>
    </table>
    <h3 class="next">
      What falls into the clip <button
        type="button"
        class="link add"
        onclick={() => sheet.begin('shoot.clock.events')}>+ an event</button
      >
    </h3>
    {#each held.events as event, i (i)}
      <p class="event">
        <input
          class="field"
          value={event.name}
          maxlength="120"
          aria-label="name of event {i + 1}"
          onchange={(change) => void sheet.type(`shoot.clock.events.${i}.name`, change.currentTarget.value)}
        />
        at <Editable
          path="shoot.clock.events.{i}.at"
          label="time of {event.name}"
          value={event.tied ? null : Date.parse(event.at) / 1000}
          unit="instant"
          {...event.tied ? { shown: words(`shoot.clock.events.${i}`) } : {}}
        />{#if event.tied}, <Working figure="tied.shoot.clock.events.{i}" />{/if}: <Working
          figure="event.{i}.clip"
        /> into the clip
        <button
          type="button"
          class="link"
          aria-label="drop {event.name}"
          onclick={() => sheet.drop(`shoot.clock.events.${i}`)}>drop</button
        >
      </p>
    {:else}
      <p class="label">
        High tide, sunset, the lid coming off: when it will happen, and where in the clip that is. Type an
        hour, or “20 min after moonrise”.
      </p>
    {/each}
  </section>

  <section>
    <h3>For the edit</h3>
    <p class="line">
      handles of <Editable path="clip.handle_in_frames" label="handle in" unit="frames" />
      before the move and <Editable path="clip.handle_out_frames" label="handle out" unit="frames" /> after it
      {#if sheet.figure('clip.moving')}: <Working figure="clip.handle_in" /> and <Working
          figure="clip.handle_out"
        /> of clip stand still, <Working figure="clip.moving" /> move{/if}
    </p>
    <p class="line">
      <Editable path="clip.spare" label="spare frames" unit="share" /> spare, to cull
      {#if sheet.figure('clip.kept')}: <Working figure="clip.frames" /> shot, <Working figure="clip.kept" /> in
        the clip{/if}
    </p>
    <h3 class="next">What is recorded</h3>
    <Choice
      label="What is recorded"
      value={clip.school}
      options={[
        { value: 'stills', label: 'stills' },
        { value: 'movie', label: 'own clip' },
        { value: 'video', label: 'film' }
      ]}
      onchoose={(value) => sheet.put('clip.school', value)}
    />
    <p class="label school">{SCHOOLS[clip.school]}</p>
  </section>
</div>

<style>
  .cols {
    display: grid;
    grid-template-columns: 0.9fr 1.75fr 0.95fr;
    gap: 32px;
  }
  .big {
    font-size: 29px;
    margin-top: 6px;
  }
  .big.tied {
    font-size: 21px;
  }
  select {
    border-bottom: 1px solid var(--ink);
    max-width: 12em;
  }
  .line {
    font-size: 13px;
    line-height: 1.75;
  }
  .next {
    margin-top: 16px;
  }
  .add {
    font-weight: 450;
    font-size: 13px;
    margin-left: 10px;
    min-height: 24px;
  }
  h3 {
    margin-bottom: 5px;
  }
  table {
    width: 100%;
    font-size: 13px;
  }
  tr {
    border-top: 1px solid var(--hair);
  }
  td {
    padding: 2px 8px 2px 0;
  }
  .when {
    white-space: nowrap;
    width: 62px;
  }
  .press {
    font-weight: 600;
  }
  .event {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px 6px;
    font-size: 13px;
    line-height: 1.75;
  }
  .event .field {
    width: 11em;
  }
  .event .link,
  td .link {
    min-height: 24px;
  }
  .school {
    margin-top: 6px;
  }
  @media (max-width: 1100px) {
    .cols {
      grid-template-columns: 1fr 1fr;
    }
  }
  @media (max-width: 760px) {
    .cols {
      grid-template-columns: 1fr;
    }
    .field {
      min-height: 44px;
    }
  }
</style>
