<script lang="ts">
  /** The rig on its controller, beside the keyframes: finding where it is, sending it to one, taking one as it stands. */
  import { number } from '../../format';
  import type { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { stands } from './axes';

  let { rig }: { rig: JogRig } = $props();
  const sheet = theSheet();
  const keys = $derived(sheet.plan.move.keyframes);
  const known = $derived(rig.known && !!sheet.evaluation.frames);

  function take(frame: number) {
    if (rig.state) void sheet.change([{ do: 'keyframe', frame, stands: rig.state.stands }]);
  }

  /** Rings of the lens are turned by hand. */
  function send(index: number) {
    const turning = rig.axes.filter((name) => name !== 'focus' && name !== 'zoom');
    void rig.go(Object.fromEntries(turning.map((name) => [name, stands(keys[index]!, name, sheet.plan)])));
  }
</script>

<p class="acts text-[13px]">
  {#if !rig.known}
    <button type="button" class="link" disabled={rig.busy} onclick={() => void rig.reference(rig.axes)}
      >let the rig find where it is</button
    >
    <span class="label">it goes to its lower ends; hands off</span>
  {:else}
    <span class="ways"
      ><span class="label">send the rig to</span>
      {#each keys.keys() as n (n)}<button
          type="button"
          class="link"
          aria-label="Send the rig to keyframe {n + 1}"
          disabled={rig.busy}
          onclick={() => send(n)}>{n + 1}</button
        >{/each}</span
    >
    <span class="ways"
      ><span class="label">take it as it stands for</span>
      {#each keys.keys() as n (n)}<button
          type="button"
          class="link"
          aria-label="Take keyframe {n + 1} as the rig stands"
          disabled={!known}
          onclick={() => take(sheet.evaluation.view?.keyframes[n] ?? 0)}>{n + 1}</button
        >{/each}<button type="button" class="link" disabled={!known} onclick={() => take(sheet.playhead.at)}
        >frame {number(sheet.playhead.at + 1, 12)}</button
      ></span
    >
    <button type="button" class="link" disabled={rig.busy} onclick={() => void rig.reference(rig.axes)}
      >find its ends again</button
    >
  {/if}
  <span class="label" role="status">{rig.said}</span>
</p>
<p class="label">
  A simulated controller stands in for yours. Like a real one it forgets where it stands when it is switched
  off. Hands off while it moves.
</p>

<style>
  .ways {
    display: inline-flex;
    gap: 10px;
    align-items: baseline;
  }
  .acts {
    border-top: 1px solid var(--hair);
    padding-top: 2px;
  }
  .acts .link {
    min-height: 24px;
    min-width: 16px;
  }
</style>
