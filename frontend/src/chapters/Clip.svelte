<script lang="ts">
  /** The sentence: the shoot as one line, every figure changed in place and pegged. */
  import type { Fix } from '../api/client';
  import BeatStrip from '../drawings/strip/BeatStrip.svelte';
  import ClipFold from '../drawings/fold/ClipFold.svelte';
  import { duration, fill } from '../format';
  import Editable from '../parts/Editable.svelte';
  import Peg from '../parts/Peg.svelte';
  import Working from '../parts/Working.svelte';
  import { theSheet } from '../sheet/sheet.svelte';

  const sheet = theSheet();
  type Name = 'shoot' | 'interval' | 'frames' | 'rate' | 'clip' | 'speed_up';
  const pieces: { before: string; name: Name; after: string }[] = [
    { before: 'Watch for', name: 'shoot', after: ',' },
    { before: 'take one frame every', name: 'interval', after: ',' },
    { before: 'and come home with', name: 'frames', after: '.' },
    { before: 'Played at', name: 'rate', after: '' },
    { before: 'they last', name: 'clip', after: ',' },
    { before: '', name: 'speed_up', after: ' faster than life.' }
  ];
  const PARTS = [
    { path: 'beat.wake_s', label: 'wake', unit: 's' },
    { path: 'beat.lag_s', label: 'shutter lag', unit: 's' },
    { path: 'beat.exposure_s', label: 'exposure', unit: 'shutter' },
    { path: 'beat.write_s', label: 'write to card', unit: 's' },
    { path: 'beat.settle_s', label: 'settle', unit: 's' },
    { path: 'beat.margin', label: 'margin', unit: 'share' }
  ] as const;

  const clip = $derived(sheet.told.clip);
  const clash = $derived(sheet.told.snags.find((snag) => snag.code === 'holds-contradict'));
  const few = $derived(sheet.told.snags.find((snag) => snag.code === 'holds-too-few'));
  const involved = $derived(new Set(clash ? clip.missing : []));
  const pegged = $derived(clip.quantities.filter((one) => one.held).length);
  const solved = $derived(clip.state === 'solved');
  const values = $derived(Object.fromEntries(clip.quantities.map((one) => [one.quantity, one.value ?? 0])));
  const otherRate = $derived(values.rate === 24 ? 25 : 24);
  const beat = $derived(sheet.told.beat);
  const COUNT = ['No peg', 'One peg', 'Two pegs', 'Three pegs', 'Four pegs', 'Five pegs', 'Six pegs'];

  function peg(name: Name) {
    const held = sheet.quantity(name)?.held;
    void sheet.change([held ? { do: 'release', quantity: name } : { do: 'hold', quantity: name }]);
  }

  function beatValue(path: string): number {
    const name = path.split('.')[1] as keyof typeof sheet.plan.beat;
    return fraction(String(sheet.plan.beat[name]));
  }

  function fraction(text: string): number {
    const [over, under] = text.split('/').map(Number);
    return (over ?? 0) / (under ?? 1);
  }
</script>

{#snippet pulls(fixes: Fix[])}
  <div class="pulls">
    {#each fixes as fix, i (i)}
      <button type="button" onclick={() => void sheet.apply(fix.edits)}>
        <b>{fill(fix.label, fix.slots, sheet.zone)}</b>
        <span>{fill(fix.consequence, fix.slots, sheet.zone)}</span>
      </button>
    {/each}
  </div>
{/snippet}

<section class="clip">
  <h2 class="sr-only">Clip</h2>
  <div class="first">
    <p class="sentence" class:clash>
      {#each pieces as piece (piece.name)}
        {@const one = sheet.quantity(piece.name)}
        {piece.before}{' '}<span class="keep"
          ><Editable
            path="clip.{piece.name}"
            label={one?.label ?? piece.name}
            value={one?.value ?? null}
            unit={one?.unit ?? ''}
            held={one?.held}
            onpeg={() => peg(piece.name)}
          /><Peg
            label={one?.label ?? piece.name}
            held={one?.held ?? false}
            pull={involved.has(piece.name)}
            onpeg={() => peg(piece.name)}
          />{piece.after}</span
        >{' '}
      {/each}
    </p>

    {#if clash}
      <div class="verdict" role="alert" data-snag="holds-contradict">
        <p>
          <b>Stop.</b>
          {fill(clash.what, clash.slots, sheet.zone)}
          {fill(clash.why, clash.slots, sheet.zone)}
        </p>
        {@render pulls(clash.fixes)}
      </div>
    {:else if few}
      <div class="verdict" role="status" data-snag="holds-too-few">
        <p>
          <b>{COUNT[pegged]} in.</b>
          {fill(few.what, few.slots, sheet.zone)}
          {fill(few.why, few.slots, sheet.zone)}
        </p>
        {@render pulls(few.fixes)}
      </div>
    {:else}
      <p class="hint">
        {COUNT[pegged]} in: everything is fixed. Pull one to let it follow. Hold a figure and drag, type over it,
        or use the arrow keys.
        {#each clip.rounding as note (note.quantity)}
          <span class="rounding">
            {note.quantity === 'clip' ? 'The clip' : 'The shoot'} was to last {duration(note.asked)}; whole
            frames make it
            <Working figure="clip.{note.quantity}" />, {duration(Math.abs(note.got - note.asked))}
            {note.got > note.asked ? 'longer' : 'shorter'}.
          </span>
        {/each}
      </p>
    {/if}
  </div>

  <div class="rest">
    {#if solved && sheet.told.frames}
      <ClipFold
        frames={sheet.told.frames}
        clip={values.clip ?? 0}
        rate={values.rate ?? 25}
        speedUp={values.speed_up ?? 1}
        playhead={sheet.playhead.at}
      />
      <p class="folded">
        <b><Working figure="clip.clip" /> of clip, <Working figure="clip.speed_up" /> faster than life</b>
        <span>the same frames at {otherRate}: <Working figure="clip.at.{otherRate}" /></span>
      </p>
    {/if}

    <div class="beat">
      <h3>
        What one beat holds
        <span class="label">
          nothing moves while the shutter is open · shortest interval that fits <Working
            figure="beat.shortest"
          />
        </span>
      </h3>
      {#if beat}<BeatStrip {beat} />{/if}
      <div class="parts">
        {#each PARTS as part (part.path)}
          <div>
            <span class="label">{part.label}</span>
            <Editable path={part.path} label={part.label} value={beatValue(part.path)} unit={part.unit} />
          </div>
        {/each}
        <div>
          <span class="label">move</span>
          <Working figure="beat.move" />
        </div>
        <div>
          <span class="label">interval step</span>
          <Editable
            path="clip.interval_step_s"
            label="interval step"
            value={fraction(String(sheet.plan.clip.interval_step_s))}
            unit="s"
          />
        </div>
      </div>
      <label class="overlap">
        <input
          type="checkbox"
          checked={sheet.plan.beat.write_while_moving}
          onchange={(event) => void sheet.set('beat.write_while_moving', event.currentTarget.checked)}
        />
        the camera writes while the rig moves
      </label>
    </div>
  </div>
</section>

<style>
  .clip {
    padding: 18px 30px 12px;
  }
  .sentence {
    font-size: clamp(27px, 3.05vw, 37px);
    line-height: 1.32;
    letter-spacing: -0.012em;
    text-wrap: pretty;
  }
  .keep {
    white-space: nowrap;
  }
  .hint {
    margin: 6px 0 8px;
    font-size: 13px;
    color: var(--second);
  }
  .rounding {
    color: var(--ink);
    font-weight: 550;
  }
  .verdict {
    margin: 10px 0 14px;
    border-left: 6px solid var(--stop);
    padding-left: 14px;
    font-size: 15px;
  }
  .verdict[data-snag='holds-too-few'] {
    border-left: 3px solid var(--ink);
  }
  .pulls {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 10px;
    margin-top: 8px;
  }
  .pulls button {
    flex: 1 1 240px;
    max-width: 420px;
    border: 1px solid var(--ink);
    padding: 7px 12px;
    text-align: left;
    font-size: 13px;
  }
  .pulls button:hover {
    background: var(--wash);
  }
  .pulls span {
    display: block;
    color: var(--second);
    font-size: 12px;
  }
  .folded {
    display: flex;
    flex-wrap: wrap;
    justify-content: center;
    gap: 0 20px;
    font-size: 13px;
  }
  .folded span {
    color: var(--second);
  }
  .beat {
    margin-top: 4px;
  }
  .beat h3 {
    margin-bottom: 6px;
  }
  .beat h3 .label {
    margin-left: 14px;
    font-weight: 450;
  }
  .parts {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
    gap: 4px 12px;
    margin-top: 4px;
  }
  .parts div {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
  }
  .overlap {
    display: inline-flex;
    align-items: center;
    gap: 8px;
    margin-top: 8px;
    font-size: 13px;
    min-height: 24px;
  }
  .overlap input {
    width: 15px;
    height: 15px;
    accent-color: var(--ink);
  }
  @media (max-width: 760px) {
    /* On a phone: the sentence, then the ring and the next thing to do, then the rest. */
    .clip {
      display: contents;
    }
    .first,
    .rest {
      background: var(--sheet);
      padding: 14px 16px;
    }
    .rest {
      order: 3;
      border-top: 1px solid var(--ink);
    }
    .sentence {
      font-size: 26px;
      line-height: 1.5;
    }
    .parts {
      grid-template-columns: repeat(2, 1fr);
      gap: 10px 12px;
      font-size: 17px;
    }
    .overlap {
      min-height: 44px;
    }
  }
</style>
