<script lang="ts">
  /** The same positions once more, at another interval or in another light. */
  import Editable from '../../parts/Editable.svelte';
  import NameField from '../../parts/NameField.svelte';
  import { exact } from '../../parts/paths';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const passes = $derived(sheet.plan.move.passes);
  const MOST = 10;
  /** Where a pass has no interval of its own it goes at the shoot's. */
  const every = (own: string | null | undefined) =>
    own === null || own === undefined ? (sheet.evaluation.interval_s ?? null) : exact(own);
</script>

<h3>The same positions again</h3>
<p class="mono-note">
  Another pass at its own interval, or in another light: a clean background, subject and sky at different
  speeds.
</p>
{#each passes as pass, n (n)}
  {@const path = `move.passes.${n}`}
  <div class="flex flex-wrap items-baseline gap-x-3.5 gap-y-1 border-b border-hair">
    <NameField path="{path}.name" label="name of pass {n + 1}" value={pass.name} class="w-[120px]" />
    <span
      >every <Editable
        path="{path}.interval_s"
        label="interval of {pass.name}"
        value={every(pass.interval_s)}
        unit="s"
        exactText
      /></span
    >
    <span>lasts <Working figure="pass.{n}" /></span>
    <button type="button" class="link" onclick={() => sheet.drop(path)}>take away</button>
  </div>
{/each}
{#each sheet.plan.rig.axes as axis (axis.name)}
  {#if sheet.figure(`pass.repeat.${axis.name}`)}
    <p>
      The {axis.name} comes back to within <Working figure="pass.repeat.{axis.name}" />, less if it always
      comes from the same side.
    </p>
  {/if}
{/each}
<button type="button" class="link" disabled={passes.length >= MOST} onclick={() => sheet.begin('move.passes')}
  >+ a pass</button
>
