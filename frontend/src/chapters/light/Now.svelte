<script lang="ts">
  /** What is set at the playhead, what is left of it for the edit, and what comes next. */
  import { clock, duration, number, shutter, write } from '../../format';
  import { nextAfter, setAt } from '../../drawings/light/geometry';
  import { stopsSaid } from '../../drawings/light/state.svelte';
  import { exact } from '../../parts/paths';
  import { at, elapsedAt } from '../../sheet/series';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const head = sheet.playhead;
  const light = $derived(sheet.evaluation.light);
  const now = $derived(setAt(light.changes, head.at));
  const next = $derived(nextAfter(light.changes, head.at));
  const map = $derived(sheet.evaluation.traces?.map);
  const set = $derived.by(() => {
    const { beat, camera } = sheet.plan;
    return {
      shutter: now?.shutter_s ?? exact(beat?.exposure_s),
      iso: now?.iso ?? camera?.iso ?? 100,
      aperture: now?.aperture ?? camera?.aperture ?? 8
    };
  });
  const bright = $derived(at(light.bright ?? undefined, head.at));
  const left = $derived(at(light.leftover ?? undefined, head.at));
  const locked = $derived(sheet.plan.light?.school === 'locked');
  const until = $derived(next ? elapsedAt(map, next.frame) - elapsedAt(map, head.at) : 0);
  const MOVED = { shutter: 'shutter', iso: 'ISO', aperture: 'aperture', filter: 'filter' } as Record<
    string,
    string
  >;
</script>

<p class="set" aria-live="off">
  <b>{shutter(set.shutter)}</b> <b>ISO {number(set.iso, 6)}</b> <b>f/{number(set.aperture)}</b>
  {#if now?.density}<b>filter of {write(now.density, 'stops')}</b>{/if}
</p>
<p class="label">
  {#if locked}
    {Math.abs(bright) < 0.05
      ? 'as bright as it should be'
      : `${number(Math.abs(bright), 2)} stops ${bright > 0 ? 'brighter' : 'darker'} than right`}
  {:else}
    {stopsSaid(left)} stops left for the edit
  {/if}
</p>
{#if next}
  <p class="label">
    next {next.moved?.map((name) => MOVED[name]).join(' and ')} at frame {number(next.frame + 1, 9)}, {clock(
      next.moment,
      sheet.zone
    )}: in {duration(Math.max(0, Math.round(until)))}
  </p>
{:else if !locked}
  <p class="label">no more changes</p>
{/if}

<style>
  .set {
    display: flex;
    flex-wrap: wrap;
    gap: 0 12px;
    margin-top: 4px;
    font-size: 17px;
    border-top: 1px solid var(--ink);
    padding-top: 4px;
  }
</style>
