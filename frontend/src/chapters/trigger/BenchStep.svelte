<script lang="ts">
  /** One test of the bench: how it stands, the stand-in camera, and what came with the real one. */
  import { api, sentence } from '../../api/client';
  import type { components } from '../../api/schema';
  import { date, number } from '../../format';
  import Choice from '../../parts/Choice.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  interface Props {
    step: components['schemas']['BenchStep'];
  }
  let { step }: Props = $props();
  const sheet = theSheet();
  type Tried = components['schemas']['TrialTold'];
  type Fault = NonNullable<components['schemas']['AskTrial']['fault']>;
  const FAULTS = [
    { value: 'none', label: 'sound' },
    { value: 'misses', label: 'misses some' },
    { value: 'fires twice', label: 'fires twice' },
    { value: 'falls asleep', label: 'falls asleep' }
  ] as const satisfies { value: Fault; label: string }[];
  const STANDS = {
    passed: 'passed',
    missed: 'not passed',
    fewer: 'passed, with fewer presses than this many frames ask for',
    older: 'passed with another chain: once more',
    simulated: 'passed with the simulated camera alone',
    never: 'not done yet'
  } as const;
  const WHAT: Record<string, string> = {
    'one press': 'One press, one frame',
    'ten presses': 'Ten presses, ten frames',
    'with the rig': 'Ten more, with what moves or prints running',
    lamp: 'The lamp ten times, on and off',
    'many presses': 'As many as make it sure'
  };
  let open = $state(false);
  let fault = $state<Fault>('none');
  let came = $state('');
  let told = $state.raw<Tried | null>(null);
  let trouble = $state('');
  let busy = $state(false);

  async function simulate() {
    busy = true;
    trouble = '';
    const answer = await api
      .POST('/api/trigger/try', { body: { plan: sheet.plan, asked: step.asked, fault } })
      .catch((error: unknown) => {
        trouble = sentence(error);
        return null;
      });
    busy = false;
    if (answer?.data) told = answer.data;
    else if (answer) trouble = sentence(answer.error);
  }

  function keep(frames: number, simulated: boolean) {
    const trial = {
      what: step.what,
      on: new Date().toLocaleDateString('sv-SE'),
      asked: step.asked,
      came: frames,
      of: sheet.evaluation.trigger.digest ?? '',
      simulated,
      note: ''
    };
    sheet.put('trigger.trials', [...(sheet.plan.trigger!.trials ?? []), trial].slice(-200));
    open = false;
    told = null;
    came = '';
  }
  const typed = $derived(/^\d{1,7}$/.test(came.trim()) ? Number(came) : null);
</script>

<div class="step" class:bad={step.stand === 'missed' || step.stand === 'older'}>
  <p>
    <b>{WHAT[step.what] ?? step.what}</b>{#if step.what === 'many presses'}: {number(step.asked, 7)}{/if}
    <span class="label"
      >{STANDS[step.stand]}{#if step.on}, {date(step.on)}{/if}{#if step.stand === 'missed'}: {step.came} of {step.asked}
        came{/if}</span
    >
    <button type="button" class="link" aria-expanded={open} onclick={() => (open = !open)}
      >{open ? 'not now' : 'try it'}</button
    >
  </p>
  {#if open}
    <div class="ways">
      <p class="acts">
        <span>with the simulated camera, which</span>
        <Choice
          label="What the simulated camera does"
          quiet
          options={FAULTS}
          value={fault}
          onchoose={(value) => (fault = value)}
        />
        <button type="button" class="act quiet small" disabled={busy} onclick={() => void simulate()}
          >Press {number(step.asked, 7)} {step.asked === 1 ? 'time' : 'times'}</button
        >
      </p>
      {#if trouble}<p role="alert">{trouble}</p>{/if}
      {#if told}
        <p role="status">
          {number(told.came, 7)} of {number(step.asked, 7)} came{#if told.first_lost !== null}; the first that
            did not: press {number(told.first_lost + 1, 7)}{/if}. {told.why}
          <button type="button" class="link" onclick={() => keep(told!.came, true)}
            >put it down as simulated</button
          >
        </p>
      {/if}
      <p class="acts">
        <label for="came-{step.what}">with the real one: frames on its counter</label>
        <input id="came-{step.what}" class="field" inputmode="numeric" bind:value={came} />
        <button
          type="button"
          class="act small"
          disabled={typed === null}
          onclick={() => keep(typed ?? 0, false)}>Put it down</button
        >
        <button type="button" class="link" onclick={() => keep(step.asked, false)}
          >all {number(step.asked, 7)} came</button
        >
      </p>
    </div>
  {/if}
</div>

<style>
  .step {
    border-top: 1px solid var(--hair);
    padding: 5px 0;
  }
  .bad .label {
    color: var(--stop);
  }
  .ways {
    padding: 2px 0 6px 14px;
    border-left: 3px solid var(--hair);
  }
  .field {
    width: 90px;
  }
</style>
