<script lang="ts">
  /** The times of one beat, each to be changed where it stands, and where it comes from. */
  import Editable from '../../parts/Editable.svelte';
  import OriginNote from '../../parts/OriginNote.svelte';
  import Working from '../../parts/Working.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  /** What stands still has nothing to settle. */
  const moves = $derived(sheet.plan.rig.axes.length > 0);
  /** The exposure of each frame is set in the chapter Light then. */
  const follows = $derived(!!sheet.evaluation.light.shutter_s);
  const PARTS = [
    { path: 'beat.wake_s', label: 'wake', unit: 's' },
    { path: 'beat.lag_s', label: 'shutter lag', unit: 's' },
    { path: 'beat.exposure_s', label: 'exposure', unit: 'shutter' },
    { path: 'beat.write_s', label: 'write to card', unit: 's' },
    { path: 'beat.settle_s', label: 'settle', unit: 's' },
    { path: 'beat.margin', label: 'margin', unit: 'share' }
  ];
  const HOW = { typed: 'typed', card: 'kit card', measured: 'measured', usual: 'usual value' } as const;
  let shown = $state('');
  const part = $derived(PARTS.find(({ path }) => path === shown));
</script>

<div class="parts">
  {#each PARTS.filter(({ path }) => moves || path !== 'beat.settle_s') as { path, label, unit } (path)}
    {@const origin = sheet.evaluation.origins[path]}
    <div>
      <span class="label">{label}</span>
      {#if path === 'beat.exposure_s' && follows}
        <a class="link" href="/shoots/{sheet.id}/light" onclick={router.follow}>follows the light</a>
      {:else}<Editable {path} {label} {unit} />{/if}
      {#if origin && !(path === 'beat.exposure_s' && follows)}
        <button
          type="button"
          class="from"
          data-how={origin.how}
          aria-expanded={shown === path}
          aria-label="{HOW[origin.how]}: where the {label} comes from"
          onclick={() => (shown = shown === path ? '' : path)}>{HOW[origin.how]}</button
        >
      {/if}
    </div>
  {/each}
  {#if moves}<div><span class="label">move</span><Working figure="beat.move" /></div>{/if}
  <div>
    <span class="label">interval step</span>
    <Editable path="clip.interval_step_s" label="interval step" unit="s" />
  </div>
</div>
{#if part}<OriginNote path={part.path} unit={part.unit} />{/if}

<style>
  .parts {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
    gap: 4px 12px;
    margin: 4px 0 2px;
  }
  .parts div {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
  }
  .from {
    font-size: 12px;
    font-stretch: 88%;
    color: var(--second);
    min-height: 24px;
    border-bottom: 1px dashed transparent;
  }
  .from:hover,
  .from[aria-expanded='true'] {
    border-bottom-color: var(--second);
  }
  .from[data-how='measured'] {
    color: var(--ink);
    font-weight: 600;
  }
  @media (max-width: 760px) {
    .parts {
      grid-template-columns: repeat(2, 1fr);
      gap: 10px 12px;
      font-size: 17px;
    }
  }
</style>
