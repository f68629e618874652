<script lang="ts">
  /** The sentence: the shoot as one line, every figure changed in place and pegged. */
  import chapter from '.';
  import { changing } from '../../sheet/frames';
  import type { Fix } from '../../api/client';
  import { duration, fill, write } from '../../format';
  import Editable from '../../parts/Editable.svelte';
  import Leaves from '../../parts/Leaves.svelte';
  import Peg from '../../parts/Peg.svelte';
  import Working from '../../parts/Working.svelte';
  import { exact } from '../../parts/paths';
  import Changing from './Changing.svelte';
  import OnTheClock from './OnTheClock.svelte';
  import OneBeat from './OneBeat.svelte';
  import Suits from './Suits.svelte';
  import { router } from '../../router.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

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
  const clip = $derived(sheet.evaluation.clip);
  const clash = $derived(sheet.evaluation.snags.find((snag) => snag.code === 'holds-contradict'));
  const few = $derived(sheet.evaluation.snags.find((snag) => snag.code === 'holds-too-few'));
  const involved = $derived(new Set(clash ? clip.missing : []));
  const pegged = $derived(clip.quantities.filter((quantity) => quantity.held).length);
  const leaf = $derived(sheet.leaf);
  const segments = $derived(changing(sheet.plan).segments);
  const range = $derived.by(() => {
    const each = segments.map((segment) => exact(segment.interval_s));
    const [low, high] = [Math.min(...each), Math.max(...each)];
    return low === high ? duration(low) : `${duration(low)} to ${duration(high)}`;
  });
  const ROUNDED = {
    clip: 'The clip was to last',
    shoot: 'The shoot was to last',
    speed_up: 'It was to be faster by',
    frames: 'There were to be'
  };
  const COUNT = ['No peg', 'One peg', 'Two pegs', 'Three pegs', 'Four pegs', 'Five pegs', 'Six pegs'];

  /** The figure that is being typed over, and the pegs that give way to it: said before it is done. */
  let typed = $state<Name | null>(null);
  const giving = $derived(typed ? (sheet.quantity(typed)?.pulls ?? []) : []);
  const givesWay = $derived(giving.map((name) => sheet.quantity(name)?.label ?? name).join(' and the '));

  function peg(name: Name) {
    const held = sheet.quantity(name)?.held;
    void sheet.change([held ? { do: 'release', quantity: name } : { do: 'hold', quantity: name }]);
  }
  /** Layers are done when they are done: their times are an estimate. */
  const layered = $derived(sheet.plan.frames?.source === 'layers');
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
        {#if piece.name === 'interval' && segments.length}
          {piece.before}{' '}<span class="keep"
            ><button
              type="button"
              class="range"
              onclick={() => router.go(`/shoots/${sheet.id}/clip/changing`)}>{range}</button
            >{piece.after}</span
          >{' '}
        {:else}
          {piece.before}{' '}<span class="keep"
            ><Editable
              path="clip.{piece.name}"
              label={one?.label ?? piece.name}
              value={one?.value ?? null}
              unit={one?.unit ?? ''}
              {...piece.name === 'shoot' && segments.length && one?.value
                ? { shown: duration(Math.round(one.value)) }
                : layered && (piece.name === 'shoot' || piece.name === 'interval') && one?.value
                  ? { shown: `about ${duration(Math.round(one.value))}` }
                  : {}}
              held={one?.held}
              onedit={(on) => (typed = on ? piece.name : typed === piece.name ? null : typed)}
              onpeg={() => peg(piece.name)}
            />{#if !segments.length || piece.name === 'rate'}<Peg
                label={one?.label ?? piece.name}
                held={one?.held ?? false}
                pull={involved.has(piece.name) || giving.includes(piece.name)}
                onpeg={() => peg(piece.name)}
              />{/if}{piece.after}</span
          >{' '}
        {/if}
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
      <p class="hint" role={giving.length ? 'status' : undefined}>
        {#if giving.length}<b>Enter holds it, and pulls the peg of the {givesWay}.</b>
        {:else if segments.length}The segments hold the interval; type over the other figures and all of them
          stretch alike.
        {:else}{COUNT[pegged]} in: everything is fixed. Pull one to let it follow. Hold a figure and drag, type
          over it, or use the arrow keys.{/if}
        {#each clip.rounding as note (note.quantity)}
          <span class="rounding">
            {ROUNDED[note.quantity]}
            {note.quantity === 'speed_up'
              ? write(note.asked, 'times')
              : note.quantity === 'frames'
                ? write(note.asked, 'frames')
                : duration(note.asked)};
            {note.cause === 'whole frames'
              ? 'whole frames make it'
              : note.cause === 'whole windows'
                ? 'every window has whole frames, which make it'
                : `an interval in steps of ${duration(exact(sheet.plan.clip.interval_step_s))} makes it`}
            <Working
              figure="clip.{note.quantity}"
            />{#if note.quantity !== 'speed_up' && note.quantity !== 'frames'}, {duration(
                Math.abs(note.got - note.asked)
              )}
              {note.got > note.asked ? 'longer' : 'shorter'}{/if}.
          </span>
        {/each}
      </p>
      {#each clip.rounding as note (note.quantity)}
        {#if note.fixes.length}{@render pulls(note.fixes)}{/if}
      {/each}
    {/if}
  </div>

  <div class="rest">
    <div class="leaves">
      <Leaves label="Parts of the clip" at="/shoots/{sheet.id}/clip" leaves={chapter.leaves} open={leaf} />
    </div>
    {#if leaf === 'beat'}<OneBeat />
    {:else if leaf === 'changing'}<Changing />
    {:else if leaf === 'clock'}<OnTheClock />
    {:else}<Suits />{/if}
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
    margin: 8px 0 12px;
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
  .range {
    font-weight: 650;
    letter-spacing: inherit;
    border-bottom: 2px dotted var(--second);
  }
  .range:hover {
    background: var(--wash);
  }
  .leaves {
    margin: 2px 0 10px;
    border-top: 1px solid var(--hair);
    padding-top: 6px;
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
  }
</style>
