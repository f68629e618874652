<script lang="ts">
  /** One part of the beat taken hold of: its time, changed in place, where it comes from, and its working. */
  import { Popover } from 'bits-ui';
  import { duration } from '../format';
  import { router } from '../router.svelte';
  import { theSheet } from '../sheet/sheet.svelte';
  import { BEAT_FIELDS } from './beatParts';
  import { exact } from './paths';
  import Editable from './Editable.svelte';
  import OriginNote from './OriginNote.svelte';
  import Working from './Working.svelte';

  interface Props {
    name: string | null;
    anchor: Element | null;
    onclose: () => void;
  }
  let { name, anchor, onclose }: Props = $props();

  const sheet = theSheet();
  const part = $derived(sheet.evaluation.beat?.parts.find((part) => part.name === name));
  // An exposure that follows the light is set there: what stands in the plan beside it has no say.
  const follows = $derived(name === 'exposure' && !!sheet.evaluation.light.shutter_s);
  const fields = $derived(follows ? [] : (BEAT_FIELDS[name ?? ''] ?? []));
  const WHY: Record<string, string> = {
    wake: 'A camera that has gone to sleep has to be woken before it hears a trigger.',
    half: 'The half press that goes ahead of the full one: it wakes the camera, and lets it focus where it does.',
    warm: 'Lamps that are lit for the frame alone come on first.',
    call: 'From the decision until the contact closes: a command that has to go through a computer takes a while.',
    couple: 'A relay has to pull in; an optocoupler takes no time worth a word.',
    press: 'How long the full press lasts: long enough to be noticed, and over before the next.',
    lag: 'From the trigger until the shutter is open.',
    exposure: 'Nothing may move now, unless the rig never stops.',
    gap: 'The shutter is closed: the camera sets itself for the next exposure, the focus moves, a dark frame is taken.',
    process: 'The camera works on the picture before it takes the next one.',
    write: 'The camera refuses the next trigger until the picture is on the card.',
    move: 'The axes go to their next positions, all together; the slowest rules.',
    settle: 'The rig swings out after each step. A heavy lens, a long rail or wind make it longer.',
    margin: 'Kept free for whatever takes longer than it should.',
    spare: 'What is left of the interval.'
  };
  function value(path: string): number {
    return exact(sheet.plan.beat[path.split('.')[1] as keyof typeof sheet.plan.beat]);
  }
</script>

<Popover.Root open={part !== undefined} onOpenChange={(open) => !open && onclose()}>
  <Popover.Portal>
    {#if part}
      <Popover.Content
        class="slip"
        sideOffset={10}
        collisionPadding={8}
        customAnchor={anchor as HTMLElement}
        aria-label="About {part.label}"
      >
        <p class="head"><b>{part.label}</b> <span>{duration(part.length_s)}</span></p>
        {#if follows}
          <p class="row">
            <span class="label">follows the light</span>
            <a class="link" href="/shoots/{sheet.id}/light" onclick={router.follow}>to its limits</a>
          </p>
        {/if}
        {#each fields as field (field.path)}
          <p class="row">
            <span class="label">{field.label}</span>
            <Editable path={field.path} label={field.label} value={value(field.path)} unit={field.unit} />
          </p>
          <OriginNote path={field.path} unit={field.unit} />
        {/each}
        {#if part.figure}<p class="row">
            <span class="label">worked out</span>
            <Working figure={part.figure} />
          </p>{/if}
        <p class="why">{WHY[part.name] ?? ''}</p>
      </Popover.Content>
    {/if}
  </Popover.Portal>
</Popover.Root>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    border-bottom: 1px solid var(--ink);
    padding-bottom: 6px;
  }
  .head b::first-letter {
    text-transform: uppercase;
  }
  .row {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    margin-top: 8px;
  }
  .why {
    margin-top: 8px;
    color: var(--second);
  }
</style>
