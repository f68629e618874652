<script lang="ts">
  /** The rig moved by hand through its controller, and where it stands taken as a keyframe. */
  import { number, write } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import type { JogRig } from '../../sheet/jog.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import { stands } from './axes';

  let { rig }: { rig: JogRig } = $props();
  const sheet = theSheet();
  const STEPS = { linear: [0.1, 1, 10, 100], rotary: [0.1, 1, 5, 20] } as const;
  const SIZES = STEPS.linear.map((mm, n) => ({ value: String(n), label: `${mm} mm · ${STEPS.rotary[n]}°` }));
  let size = $state(1);
  const axes = $derived(sheet.plan.rig.axes.filter(({ name }) => sheet.evaluation.programmed.includes(name)));
  const keys = $derived(sheet.plan.move.keyframes);
  const at = $derived<Partial<Record<string, number>>>(rig.state?.at ?? {});
  const all = $derived(axes.length > 0 && axes.every((axis) => at[axis.name] !== undefined));
  const known = $derived(all && !!sheet.evaluation.frames);

  function capture(frame: number) {
    if (rig.state) void sheet.change([{ do: 'keyframe', frame, stands: rig.state.stands }]);
  }

  /** Focus and zoom turn rings by hand. */
  function goTo(index: number) {
    const key = keys[index]!;
    const turning = axes.filter(({ name }) => name !== 'focus' && name !== 'zoom');
    void rig.go(Object.fromEntries(turning.map(({ name }) => [name, stands(key, name, sheet.plan)])));
  }
</script>

<h3>Jog and capture</h3>
<p class="mono-note">
  A simulated controller stands in for yours. Like a real one it forgets where it stands when it is switched
  off: reference it, jog until the framing is right, and take that as a keyframe. Hands off while it moves.
</p>
<p class="acts my-1.5">
  <button
    type="button"
    class="act quiet"
    disabled={rig.busy}
    onclick={() => void rig.reference(axes.map((axis) => axis.name))}
    >{all ? 'Reference again' : 'Reference all axes'}</button
  >
  <span class="label" role="status">{rig.said}</span>
</p>
<table>
  <tbody>
    {#each axes as { name, kind } (name)}
      {@const stand = at[name]}
      <tr>
        <th scope="row">{name}</th>
        <td>
          {#each [{ way: -1, label: 'down', sign: '−' }, { way: 1, label: 'up', sign: '+' }] as { way, label, sign } (way)}
            <button
              type="button"
              class="key"
              aria-label="Jog the {name} {label}"
              disabled={rig.busy || stand === undefined}
              onclick={() => void rig.by(name, way * STEPS[kind][size]!)}>{sign}</button
            >{' '}
          {/each}
        </td>
        <td class="text-right font-semibold"
          >{stand === undefined
            ? 'not known'
            : write(Number(stand.toFixed(3)), kind === 'linear' ? 'mm' : 'deg')}{rig.state?.at_end.includes(
            name
          )
            ? ', at its end'
            : ''}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
<p class="acts my-1.5">
  <span class="label">a step is</span>
  <Choice
    label="Size of a step"
    options={SIZES}
    value={String(size)}
    onchoose={(value) => (size = Number(value))}
  />
</p>
<p class="acts my-1.5">
  {#each keys.keys() as n (n)}
    <span class="inline-flex gap-2">
      <button type="button" class="link" disabled={!all || rig.busy} onclick={() => goTo(n)}
        >go to {n + 1}</button
      >
      <button
        type="button"
        class="link"
        disabled={!known}
        onclick={() => capture(sheet.evaluation.view?.keyframes[n] ?? 0)}>take as {n + 1}</button
      >
    </span>
  {/each}
  <button type="button" class="link" disabled={!known} onclick={() => capture(sheet.playhead.at)}
    >take at the playhead, frame {number(sheet.playhead.at + 1, 12)}</button
  >
</p>

<style>
  .key {
    width: 44px;
    height: 32px;
    border: 1px solid var(--ink);
    font-size: 16px;
  }
  .key:hover:not(:disabled) {
    background: var(--wash);
  }
  @media (max-width: 760px) {
    .key {
      width: 64px;
      height: 48px;
    }
  }
</style>
