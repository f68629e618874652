<script lang="ts">
  /** The margin: the beat ring, the totals and the worst snags, always there. */
  import { untrack } from 'svelte';
  import { RigShelf, versionsOf } from '../kit/shelf.svelte';
  import { TAKES } from '../sheet/taken.svelte';
  import { toLocal } from '../time';
  import { keyed } from '../parts/keyed';
  import { setAt } from '../drawings/light/geometry';
  import BeatRing from '../drawings/ring/BeatRing.svelte';
  import { clock, date, number, say, shortDay, shutter } from '../format';
  import PartSlip from '../parts/PartSlip.svelte';
  import SnagNote from '../parts/SnagNote.svelte';
  import Working from '../parts/Working.svelte';
  import { router } from '../router.svelte';
  import { beatAt } from '../sheet/beat';
  import { theSheet } from '../sheet/sheet.svelte';

  const sheet = theSheet();
  const MOST = 2;
  // The beat is judged where it is tightest; the ring shows the one at the playhead.
  const beat = $derived(beatAt(sheet.evaluation, sheet.playhead.at));
  const tightest = $derived(sheet.evaluation.beat);
  /** How long one of a kind lasts, the longest where there are several. */
  const length = (name: string) =>
    (beat?.parts ?? []).reduce(
      (most, part) => (part.name === name ? Math.max(most, part.length_s) : most),
      0
    );
  const follows = $derived(beat !== tightest);
  /** What is engraved for the exposure at the playhead, where it follows the light; of one that is not bracketed. */
  const dialled = $derived(
    sheet.plan.beat?.bracket_frames === 1 && !sheet.plan.beat.bracket_times_s?.length
      ? setAt(sheet.evaluation.light.changes, sheet.playhead.at)?.shutter_s
      : undefined
  );
  const spare = $derived(
    follows ? length('spare') - (beat?.over_s ?? 0) : (sheet.figure('beat.spare')?.value ?? 0)
  );
  /** How many pictures a beat has that the rig moves between. */
  const stops = $derived((beat?.parts ?? []).filter((part) => part.name === 'lag').length);
  const times = $derived(stops > 1 ? `${stops} × ` : '');
  /** All of a kind in one beat: a bracket, a stack and a round have several. */
  const total = (name: string) =>
    (beat?.parts ?? []).reduce((sum, part) => sum + (part.name === name ? part.length_s : 0), 0);
  const millis = (seconds: number) => Math.round(seconds * 1000) / 1000;
  // In the clip chapter the sentence itself says what its pegs cannot hold.
  const besideSentence = $derived(router.screen.name === 'sheet' && router.screen.chapter === 'clip');
  const snags = $derived(
    sheet.evaluation.snags.filter((snag) => !(besideSentence && snag.code.startsWith('holds-')))
  );
  const old = $derived(sheet.taken.old(sheet.plan));
  const shelf = new RigShelf(sheet);
  /** Asked at every chapter, when the copies are others, and when somebody comes back from another window. */
  const copies = $derived(versionsOf(sheet.plan));
  $effect(() => {
    if (copies && sheet.chapter) untrack(() => void shelf.compare(sheet.plan));
  });
  const open = $derived(sheet.evaluation.clip.state);
  // A length of hours is read to the second; its working has the rest.
  const onSite = $derived.by(() => {
    const shoot = sheet.figure('clip.shoot')?.value;
    return shoot === undefined ? '–' : say(shoot > 600 ? Math.round(shoot) : shoot, 's');
  });
  const done = $derived.by(() => {
    const at = sheet.figure('time.finish')?.value;
    if (at === undefined) return '–';
    if (at - sheet.start <= 86_400) return clock(at, sheet.zone);
    // An end in another year says which.
    const named =
      sheet.figure('time.finish')?.unit === 'dated'
        ? date(toLocal(at, sheet.zone).slice(0, 10))
        : shortDay(at, sheet.zone);
    return `${named}, ${clock(at, sheet.zone, false)}`;
  });
  /** What goes ahead of the shutter, where anything but waking does. */
  const AHEAD = [
    ['half', 'half press ahead'],
    ['warm', 'lamps warm up'],
    ['call', 'until it presses'],
    ['couple', 'coupling']
  ] as const;
  let held = $state<string | null>(null);
  let anchor = $state.raw<Element | null>(null);

  function hold(name: string, at: Element) {
    anchor = at;
    held = name;
  }
</script>

{#snippet part(name: string, shown: string)}
  <button
    type="button"
    class="figure"
    aria-label="{name}: {shown}. Take hold of it"
    onclick={(event) => hold(name, event.currentTarget)}>{shown}</button
  >
{/snippet}

<svelte:document
  onvisibilitychange={() => document.visibilityState === 'visible' && void shelf.compare(sheet.plan)}
/>
<aside class="margin" aria-label="Beat, totals and snags">
  {#if beat}
    <BeatRing {beat} {spare} onpart={hold} />
    <PartSlip name={held} {anchor} onclose={() => (held = null)} />
    <dl class="legend">
      <div>
        <dt><i class="ink"></i>exposure</dt>
        <dd>{@render part('exposure', shutter(dialled ?? total('exposure')))}</dd>
      </div>
      {#each AHEAD as [name, label] (name)}
        {#if length(name)}
          <div>
            <dt><i class="thin"></i>{label}</dt>
            <dd>{@render part(name, say(length(name), 's'))}</dd>
          </div>
        {/if}
      {/each}
      {#if total('gap')}
        <div>
          <dt><i class="line"></i>gaps between</dt>
          <dd><Working figure="beat.gaps" /></dd>
        </div>
      {/if}
      {#if length('process')}
        <div>
          <dt><i class="grey"></i>processing</dt>
          <dd>{@render part('process', times + say(length('process'), 's'))}</dd>
        </div>
      {/if}
      <div>
        <dt><i class="tone"></i>write to card</dt>
        <dd>
          {#if sheet.plan.beat.buffer_frames}buffered{:else}{@render part(
              'write',
              times + say(length('write'), 's')
            )}{/if}
        </dd>
      </div>
      {#if sheet.plan.rig.axes.length}
        <div>
          <dt><i class="thin"></i>{stops > 1 ? 'longest move' : 'move'}, then settle</dt>
          <dd>
            {#if sheet.plan.beat.school === 'continuous'}never stops{:else if !length('move')}nothing moves{:else}
              <Working figure="beat.move" shown={number(length('move'), 3)} /> + {@render part(
                'settle',
                say(length('settle'), 's')
              )}{/if}
          </dd>
        </div>
      {/if}
      <div>
        <dt><i class="dots"></i>margin kept</dt>
        <dd><Working figure="beat.margin" shown={say(millis(length('margin')), 's')} /></dd>
      </div>
      <div>
        <dt><i></i>{beat.over_s > 0 ? 'over' : 'spare'}</dt>
        <dd>
          {#if follows}{say(millis(Math.abs(spare)), 's')}{:else}<Working
              figure="beat.spare"
              shown={say(millis(Math.abs(spare)), 's')}
            />{/if}
        </dd>
      </div>
    </dl>
    {#if follows && tightest}
      <p class="label">
        tightest at <button type="button" class="link" onclick={() => sheet.playhead.to(tightest.frame)}
          >frame {number(tightest.frame + 1, 9)}</button
        >: <Working figure="beat.spare" /> spare
      </p>
    {/if}
  {:else}
    <p class="mono-note open">
      {open === 'contradiction'
        ? 'The beat ring comes back when the pegs agree.'
        : 'The beat ring needs frames and an interval. Peg one more figure of the sentence.'}
    </p>
  {/if}
  <dl class="totals">
    <div>
      <dt>frames</dt>
      <dd>
        <Working
          figure="clip.frames"
          shown={sheet.evaluation.frames ? number(sheet.evaluation.frames, 12) : '–'}
        />
      </dd>
    </div>
    <div>
      <dt>interval</dt>
      <dd><Working figure="clip.interval" /></dd>
    </div>
    <div>
      <dt>on site</dt>
      <dd><Working figure="clip.shoot" shown={onSite} /></dd>
    </div>
    <div>
      <dt>finished</dt>
      <dd><Working figure="time.finish" shown={done} /></dd>
    </div>
    <div>
      <dt>clip</dt>
      <dd><Working figure="clip.clip" /></dd>
    </div>
    <div>
      <dt>faster by</dt>
      <dd><Working figure="clip.speed_up" /></dd>
    </div>
  </dl>
  {#if sheet.chapter !== 'rig'}
    {#each shelf.changed as change (change.key)}<p class="label" role="status">
        <b>{change.name}</b> has changed on the shelf since: {change.differences.join('; ')}.
        <button type="button" class="link" onclick={() => shelf.takeOver(change)}>Take it over</button>
      </p>{/each}
  {/if}
  {#if sheet.chapter !== 'review' && old.length}<p class="label" role="status">
      Changed since you took it along: {old.map(({ what }) => TAKES[what]).join(', ')}.
      <a class="link" href="/shoots/{sheet.id}/review" onclick={router.follow}>Take it anew</a>
    </p>{/if}
  {#if sheet.chapter !== 'review'}<div class="snags">
      {#each keyed(snags.slice(0, MOST), (one) => one.code + one.path) as { key, it: snag } (key)}
        <SnagNote {snag} />
      {:else}
        <p class="label">{open === 'solved' ? 'No snags.' : 'The sentence says what is missing.'}</p>
      {/each}
      {#if snags.length > MOST}
        <a class="link" href="/shoots/{sheet.id}/review" onclick={router.follow}
          >{snags.length - MOST} more in Review</a
        >
      {/if}
    </div>{/if}
</aside>

<style>
  .margin {
    padding: 8px 16px 10px;
    border-left: 1px solid var(--ink);
    overflow-y: auto;
  }
  .open {
    padding: 24px 0;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 1.5px 0;
  }
  .legend {
    margin-top: 4px;
    font-size: 13px;
    font-stretch: 94%;
    line-height: 1.15;
  }
  .legend dd {
    font-weight: 600;
  }
  .legend div {
    align-items: center;
    height: 24px;
    padding: 0;
  }
  .legend :global(.figure) {
    font-weight: 600;
    line-height: 1.15;
  }
  .totals,
  .snags {
    margin-top: 7px;
    border-top: 1px solid var(--hair);
    padding-top: 7px;
  }
  /* Three abreast, so that the worst snag stands on the first screen as well. */
  .totals {
    display: grid;
    grid-template-columns: repeat(3, auto);
    justify-content: space-between;
    gap: 4px 8px;
  }
  .totals div {
    display: block;
  }
  .totals dt {
    color: var(--second);
    font-size: 12px;
    font-stretch: 88%;
    line-height: 1.1;
  }
  .snags {
    display: grid;
    gap: 12px;
  }
  i {
    display: inline-block;
    width: 14px;
    height: 8px;
    margin-right: 8px;
  }
  .ink {
    background: var(--ink);
  }
  .grey {
    background: var(--second);
  }
  .tone {
    background: var(--tone);
  }
  .thin {
    height: 4px;
    margin-bottom: 2px;
    background: linear-gradient(to right, var(--tone) 50%, var(--ink) 50%);
  }
  .line {
    height: 3px;
    margin-bottom: 3px;
    background: var(--second);
  }
  .dots {
    border-bottom: 3px dotted var(--ink);
    height: 5px;
  }
  @media (max-width: 1000px) {
    .margin {
      border-left: 0;
      border-top: 1px solid var(--ink);
    }
  }
  @media (max-width: 760px) {
    .margin {
      display: flex;
      flex-direction: column;
    }
    .snags {
      order: 1;
    }
    .legend {
      order: 2;
    }
    .totals {
      order: 3;
    }
    .totals dt {
      font-size: 13px;
    }
    .totals :global(.figure) {
      min-height: 40px;
      font-size: 16px;
    }
  }
</style>
