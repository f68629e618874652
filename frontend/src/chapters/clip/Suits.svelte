<script lang="ts">
  /** What the interval should be: the fold, the subjects, how long something takes to cross, two trial frames. */
  import ClipFold from '../../drawings/fold/ClipFold.svelte';
  import SubjectBars from '../../drawings/subjects/SubjectBars.svelte';
  import Editable from '../../parts/Editable.svelte';
  import Working from '../../parts/Working.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const values = $derived(
    Object.fromEntries(
      sheet.evaluation.clip.quantities.map((quantity) => [quantity.quantity, quantity.value ?? 0])
    )
  );
  const clip = $derived(sheet.plan.clip);
  const RATES = [
    { key: '24000/1001', label: '23.976' },
    { key: '24', label: '24' },
    { key: '25', label: '25' },
    { key: '30000/1001', label: '29.97' },
    { key: '30', label: '30' },
    { key: '48', label: '48' },
    { key: '50', label: '50' },
    { key: '60000/1001', label: '59.94' },
    { key: '60', label: '60' }
  ];
  const others = $derived(RATES.filter((one) => sheet.figure(`clip.at.${one.key}`)));

  function use(key: string) {
    const figure = sheet.figure(key);
    if (figure) void sheet.set('clip.interval', figure.exact ?? String(figure.value));
  }
  /** Worked out, or set aside again. */
  function turn(path: 'clip.crossing' | 'clip.trial', on: boolean) {
    if (on) sheet.begin(path);
    else sheet.put(path, null);
  }
</script>

{#if sheet.evaluation.clip.state === 'solved' && sheet.evaluation.frames}
  <ClipFold
    frames={sheet.evaluation.frames}
    clip={values.clip ?? 0}
    rate={values.rate ?? 25}
    speedUp={values.speed_up ?? 1}
    playhead={sheet.playhead.at}
  />
  <p class="folded">
    <b><Working figure="clip.clip" /> of clip, <Working figure="clip.speed_up" /> faster than life</b>
    <span class="others"
      >the same frames at
      {#each others as other (other.key)}<span>{other.label}: <Working figure="clip.at.{other.key}" /></span
        >{/each}
    </span>
  </p>
{/if}

{#if sheet.evaluation.clip.chosen}
  <h3>
    How often suits the subject
    <span class="label">how far things step between frames, against how hard time is pressed</span>
  </h3>
  <SubjectBars />

  <div class="two">
    <section>
      <h3>
        By how long it takes to cross the picture
        <button
          type="button"
          class="link add"
          aria-pressed={!!clip.crossing}
          onclick={() => turn('clip.crossing', !clip.crossing)}
          >{clip.crossing ? 'set aside' : 'work it out'}</button
        >
      </h3>
      {#if clip.crossing}
        <p>
          It crosses in <Editable path="clip.crossing.cross_s" label="to cross the picture" unit="s" /> and should
          take <Editable path="clip.crossing.screen_s" label="wanted on screen" unit="s" /> on screen: one frame
          every
          <Working figure="clip.crossing" />.
          <button type="button" class="link" onclick={() => use('clip.crossing')}>Take it</button>
        </p>
      {/if}
    </section>
    <section>
      <h3>
        By two trial frames
        <button
          type="button"
          class="link add"
          aria-pressed={!!clip.trial}
          onclick={() => turn('clip.trial', !clip.trial)}>{clip.trial ? 'set aside' : 'work it out'}</button
        >
      </h3>
      {#if clip.trial}
        <p>
          Between two frames <Editable path="clip.trial.apart_s" label="frames apart" unit="s" /> apart it moved
          <Editable path="clip.trial.moved_px" label="moved between them" unit="px" />. A step of <Editable
            path="clip.trial.step_px"
            label="wanted from frame to frame"
            unit="px"
          /> needs a frame every <Working figure="clip.trial" />; over this shoot it moves <Working
            figure="clip.trial_change"
          />.
          <button type="button" class="link" onclick={() => use('clip.trial')}>Take it</button>
        </p>
      {/if}
    </section>
  </div>
{/if}

<style>
  .folded {
    display: flex;
    flex-wrap: wrap;
    justify-content: center;
    align-items: baseline;
    gap: 0 20px;
    font-size: 13px;
  }
  .others {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0 10px;
    align-items: baseline;
    color: var(--second);
    font-size: 12px;
    font-stretch: 88%;
  }
  h3 .label {
    margin-left: 14px;
    font-weight: 450;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 28px;
    margin-top: 6px;
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  .two p {
    line-height: 1.9;
  }
  .add {
    font-weight: 450;
    font-size: 13px;
    margin-left: 10px;
    min-height: 24px;
  }
  @media (max-width: 760px) {
    .two {
      grid-template-columns: 1fr;
      gap: 12px;
    }
    .add {
      min-height: 44px;
    }
  }
</style>
