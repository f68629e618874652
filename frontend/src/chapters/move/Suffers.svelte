<script lang="ts">
  /** What the picture suffers from the move, each in pixels with its working; what is worth minding stands out. */
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { smearUnknown } from '../../sheet/smear';

  const sheet = theSheet();
  const has = (key: string) => sheet.figure(key) !== undefined;
  const found = (codes: readonly string[]) =>
    sheet.evaluation.snags.find((snag) => codes.includes(snag.code))?.severity;
  const continuous = $derived(sheet.plan.beat.school === 'continuous');
  const unknown = $derived(smearUnknown(sheet.evaluation));
  const rows = $derived(
    [
      { key: 'track.error', label: 'followed mark off its place', codes: ['mark-drifts', 'mark-leaves'] },
      { key: 'track.height', label: 'followed mark rises or sinks by', codes: [] },
      {
        key: 'view.shift_share',
        label: 'shift a frame, of the width',
        codes: ['move-quick', 'move-strobes']
      },
      { key: 'view.shift', label: 'shift a frame, at its worst', codes: ['move-quick', 'move-strobes'] },
      { key: 'view.shift.centre', label: 'shift a frame, at the centre', codes: [] },
      ...(continuous ? [{ key: 'beat.smear', label: 'smear while exposing', codes: ['smear-visible'] }] : []),
      { key: 'view.parallax', label: 'near passes far by', codes: ['slide-unseen'] },
      { key: 'rig.nod', label: 'nods by the rail’s sag', codes: ['rail-sags'] },
      { key: 'rig.roll', label: 'rolls by the rail’s sag', codes: ['rail-sags'] },
      { key: 'rig.horizon', label: 'horizon tilts by', codes: ['horizon-tilts'] },
      ...sheet.plan.rig.axes.map((axis) => ({
        key: `drive.${axis.name}.per_frame`,
        label: `${axis.name}, steps a frame`,
        codes: ['steps-uneven']
      })),
      { key: 'beat.move', label: 'longest step takes', codes: ['axis-too-slow'] },
      { key: 'view.across', label: 'field of view', codes: [] },
      { key: 'view.across.narrowest', label: 'field of view, zoomed in', codes: [] }
    ].filter((row) => has(row.key))
  );
</script>

<dl>
  {#if sheet.plan.rig.axes.length && !(continuous && has('beat.smear'))}
    <div>
      <dt>smear while exposing</dt>
      <dd>{!continuous ? 'none: it stands still' : unknown ? 'not known' : 'none: nothing moves'}</dd>
    </div>
  {/if}
  {#each rows as row (row.key)}
    {@const severity = found(row.codes)}
    <div class={severity}>
      <dt>{row.label}</dt>
      <dd>
        {#if severity}<span class="word"
            >{severity === 'stop' ? 'Stop' : severity === 'mind' ? 'Mind' : 'Note'}</span
          >{/if}<Working figure={row.key} />
      </dd>
    </div>
  {/each}
</dl>

<style>
  dl {
    border-top: 1px solid var(--ink);
    padding-top: 4px;
    margin-top: 4px;
  }
  div {
    display: flex;
    align-items: center;
    justify-content: space-between;
    font-size: 13px;
    min-height: 24px;
  }
  dt {
    color: var(--second);
  }
  dd {
    font-weight: 600;
  }
  .word {
    margin-right: 8px;
    font-size: 12px;
  }
  .mind dd,
  .mind :global(.figure) {
    color: var(--mind);
  }
  .stop dd,
  .stop :global(.figure) {
    color: var(--stop);
  }
</style>
