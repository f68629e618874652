<script lang="ts">
  /** What the drives are told, and what is wrong with the rig. */
  import { keyed } from '../../parts/keyed';
  import Tick from '../../parts/Tick.svelte';
  import SnagNote from '../../parts/SnagNote.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const snags = $derived(sheet.evaluation.snags.filter((snag) => snag.chapter === 'rig'));
  /** Of each axis: its place in the rig, and whether it hangs. */
  const turned = $derived(
    Object.fromEntries(
      sheet.plan.rig.axes.map((axis, number) => [axis.name as string, { number, hung: axis.hung }])
    )
  );
  const FACTS = ['steps', 'per_frame', 'ripple', 'setting', 'rate', 'run', 'dial', 'second', 'does', 'ends'];
</script>

<div>
  <h3>What the drives are told</h3>
  {#each sheet.evaluation.drives as drive (drive.axis)}
    <p class="border-t border-hair py-1">
      <b>{drive.axis}</b> <span class="label">{drive.drive}</span><br />
      {drive.words}.
      {#if drive.one_way && turned[drive.axis]}
        <Tick
          checked={turned[drive.axis]!.hung}
          onchange={(on) => sheet.put(`rig.axes.${turned[drive.axis]!.number}.hung`, on)}
          >hung upside down: it turns the other way round</Tick
        >
      {/if}
      {#each FACTS as fact (fact)}
        {@const figure = sheet.figure(`drive.${drive.axis}.${fact}`)}
        {#if figure}
          <span class="mr-3 inline-block text-second">{figure.label} <Working figure={figure.key} /></span>
        {/if}
      {/each}
    </p>
  {:else}
    <p class="label">No card says yet what moves the axes.</p>
  {/each}
  {#if snags.length}
    <h3 class="!mt-2.5">{snags.length} {snags.length === 1 ? 'snag' : 'snags'}</h3>
    {#each keyed(snags, (snag) => snag.code + snag.path) as { key, it: snag } (key)}
      <SnagNote {snag} />
    {/each}
  {/if}
</div>
