<script lang="ts">
  /** The file: put in, what stands in it already; the changed file made and proven; the trial; what to take away. */
  import { api, got, sentence } from '../../api/client';
  import { busy, type PrintLine, type Prints, type Work } from '../../bench/prints.svelte';
  import Progress from '../../bench/Progress.svelte';
  import Putting from '../../bench/Putting.svelte';
  import { duration, filed, fill, number } from '../../format';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Missing from './Missing.svelte';

  interface Props {
    prints: Prints;
    print: PrintLine | undefined;
  }
  let { prints, print }: Props = $props();
  const sheet = theSheet();
  const printing = $derived(sheet.evaluation.printing);
  const file = $derived(sheet.plan.printing?.file);
  let trouble = $state('');
  let differs = $state(false);
  const last = (kind: Work['kind']) =>
    print?.works.find((work) => work.kind === kind && work.state !== 'stopped');
  const change = $derived(last('change'));
  const trial = $derived(last('trial'));
  const asItCame = $derived(last('prove'));
  /** What speaks against this print is not taken back by a file that does what it says. */
  const stopped = $derived(
    sheet.evaluation.snags.some((one) => one.severity === 'stop' && one.chapter === 'print')
  );
  /** Whether a slicer or a host puts the stops in. */
  const elsewhere = $derived((sheet.plan.printing?.by ?? []).some((one) => one !== 'file'));
  const works = $derived([
    { work: change, kind: 'change', label: 'The changed file' },
    { work: trial, kind: 'trial', label: 'The trial' },
    { work: asItCame, kind: 'original', label: 'The file as it came' }
  ]);
  /** The prints that may be the same one without its stops; the very same file is none of them. */
  const others = $derived(
    (prints.all ?? []).filter((one) => one.state === 'read' && one.digest !== print?.digest)
  );
  let beside = $state('');
  const going = $derived(print?.works.find((work) => ['waiting', 'running'].includes(work.state)));
  /** Where the stops come by other ways, and in no file of ours, there is none to be written. */
  const writes = $derived((sheet.plan.printing?.by ?? ['file']).includes('file'));
  const ready = $derived(
    !!print && print.state === 'read' && !(printing.missing ?? []).length && !!print.layers && !busy(print)
  );

  /** What was read of the file, as the plan takes it; the choice of layers stays. */
  async function take() {
    if (!print) return;
    try {
      const told = got(await api.GET('/api/prints/{print_id}', { params: { path: { print_id: print.id } } }));
      const { facts } = told;
      if (!facts?.frames) return;
      const before = sheet.plan.frames?.source === 'layers' ? sheet.plan.frames : null;
      const chosen = before && { every: before.every, equal_mm: before.equal_mm };
      const frames = { ...facts.frames, ...chosen };
      await sheet.apply([
        { path: 'frames', value: frames as never },
        { path: 'printing.file', value: facts.file as never },
        { path: 'printing.proof', value: null }
      ]);
    } catch (error) {
      trouble = sentence(error);
    }
  }
  // The first file of a shoot is taken into its plan as soon as it has been read; another one when somebody says so.
  $effect(() => {
    if (print?.state !== 'read' || !print.layers) return;
    void api.GET('/api/prints/{print_id}', { params: { path: { print_id: print.id } } }).then((answer) => {
      const digest = answer.data?.facts?.file.digest;
      if (!digest) return;
      if (!file) void take();
      else differs = digest !== file.digest;
    });
  });
  const SORTS: Record<string, string> = {
    pause: 'a pause',
    wait: 'a wait',
    fire: 'fires or switches something',
    message: 'a message',
    home: 'homing',
    probe: 'levelling',
    tool: 'a tool',
    unknown: 'not known here'
  };
  const STYLES: Record<string, string> = {
    numbered: 'numbered comments',
    change: 'comments at each change',
    'with height': 'comments with their height',
    before: 'comments before each change',
    'by height': 'their height alone: the file says nothing'
  };
  const address = (kind: string) => `/api/prints/${print?.id}/file/${kind}`;
  /** From the plan as it is asked for, a change that is still on its way with it. */
  async function make(what: 'change' | 'trial' | 'prove') {
    await sheet.rested();
    if (print) await prints.begin(print, what, sheet.plan, what === 'prove' ? Number(beside) || null : null);
  }
</script>

<Missing />
{#if trouble || prints.trouble}<p role="alert">{trouble || prints.trouble}</p>{/if}
<div class="cols">
  <section>
    <h3>The file</h3>
    {#if print && going}
      <p><b>{print.name}</b></p>
      <Progress work={going} onstop={() => void prints.stop(going)} />
    {:else if print?.state === 'refused'}
      <p role="alert" class="wrong"><b>{print.name}</b> could not be read. {print.said}</p>
    {/if}
    {#if differs}
      <p class="wrong">
        This file is another one than the plan’s layers were read of.
        <button type="button" class="act small" onclick={() => void take()}>Take it into the shoot</button>
      </p>
    {/if}
    {#if file}
      <Rows>
        <Row label="name"><span>{file.name}</span></Row>
        <Row label="size"><span>{filed(file.bytes)}, {number(file.lines, 9)} lines</span></Row>
        <Row label="layers are told by"><span>{STYLES[file.announced]}</span></Row>
        {#if file.apart !== null && file.apart !== undefined}
          <Row label="G90 and G91"
            ><span
              >{file.apart ? 'leave E alone, as its layers tell' : 'take E along, as its layers tell'}</span
            ></Row
          >
        {/if}
        <Row label="printed from, to"
          ><span
            >X {number(file.extents_mm[0]!)} to {number(file.extents_mm[1]!)} mm, Y {number(
              file.extents_mm[2]!
            )} to {number(file.extents_mm[3]!)} mm</span
          ></Row
        >
        {#if file.first_line && file.first_mm?.length === 4}
          <Row label="its first layer"
            ><span
              >line {number(file.first_line, 9)}, X {number(file.first_mm[0]!)} to {number(file.first_mm[1]!)} mm,
              Y
              {number(file.first_mm[2]!)} to {number(file.first_mm[3]!)} mm</span
            ></Row
          >
        {/if}
        {#if file.tower_mm?.length === 4}
          <Row label="a tower beside it"
            ><span
              >X {number(file.tower_mm[0]!)} to {number(file.tower_mm[1]!)} mm, Y {number(file.tower_mm[2]!)} to
              {number(file.tower_mm[3]!)} mm</span
            ></Row
          >
        {/if}
        {#if (file.things ?? 1) > 1}<Row label="objects, one after another"><span>{file.things}</span></Row
          >{/if}
        <Row label="where infill begins"
          ><span>{file.infills ? `said in ${number(file.infills)} layers` : 'not said'}</span></Row
        >
      </Rows>
    {:else if !print}
      <p>
        A layered shoot begins with the file that is printed: Bridle reads when each layer is done, and writes
        the stops into it.
      </p>
    {/if}
    <Putting
      shoot={sheet.id}
      label={print ? 'Put another file in' : 'Put the file in'}
      ondone={async () => {
        // Another shoot's file stays with it.
        if (print?.shoot_id === sheet.id) await prints.drop(print);
        await prints.look();
      }}
    />
    {#if file?.already?.length || file?.unread?.length}
      <h3>What stands in it already</h3>
      <table>
        <caption class="sr-only">Commands in the file besides moves and settings</caption>
        <tbody>
          {#each file.already ?? [] as one (one.name)}
            <tr
              ><th scope="row">{one.name}</th><td>{SORTS[one.sort]}</td><td
                >{one.count === 1 ? 'once' : `${number(one.count)} times`}{one.layers
                  ? `, in ${number(one.layers)} ${one.layers === 1 ? 'layer' : 'layers'}`
                  : ''}</td
              ><td>line {number(one.line, 9)}</td></tr
            >
          {/each}
          {#each file.unread ?? [] as one (one.line)}
            <tr class="wrong"
              ><th scope="row">“{one.stood}”</th><td colspan="2">expected {one.expected}</td><td
                >line {number(one.line, 9)}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
    {/if}
    {#if printing.turns?.length && file}
      <h3>If it does not simply go on</h3>
      <dl class="turns">
        {#each printing.turns as turn (turn.when)}
          <dt>{turn.when}</dt>
          <dd>{turn.said}</dd>
        {/each}
      </dl>
    {/if}
  </section>
  <section>
    <h3>The changed file, and its proof</h3>
    <p>
      Bridle writes the stops into a copy and has a virtual printer carry that out from its first byte, beside
      the original: it knows the printer’s card and the bytes, nothing else.
    </p>
    <p class="acts">
      <button type="button" class="act" disabled={!ready || !writes} onclick={() => void make('change')}
        >Write it and prove it</button
      >
      <button type="button" class="act quiet" disabled={!ready || !writes} onclick={() => void make('trial')}
        >A trial of ten layers</button
      >
      {#if elsewhere || file?.parks || file?.already?.some((one) => one.sort === 'fire')}
        <button type="button" class="act quiet" disabled={!ready} onclick={() => void make('prove')}
          >Prove the file as it came</button
        >
        {#if others.length}
          <label class="label"
            >held against
            <select class="field" bind:value={beside}>
              <option value="">nothing: the print is not compared</option>
              {#each others as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
            </select></label
          >
        {/if}
      {/if}
    </p>
    {#if !writes}
      <p class="label">The stops come by another way (leaf The stop): then no changed file is written.</p>
    {/if}
    {#each works as one (one.kind)}
      {#if one.work && one.work.state === 'failed'}
        <p role="alert" class="wrong">{one.label}: {one.work.said}</p>
      {:else if one.work?.result}
        {@const proof = one.work.result}
        {@const older = one.kind !== 'trial' && one.work.of !== printing.of}
        <article data-proof={older ? 'older' : proof.stands}>
          <h4>
            {one.label}: {older
              ? 'tried with what the plan said before'
              : proof.stands === 'proven'
                ? stopped
                  ? 'proven in itself, but something stops this print'
                  : 'proven'
                : proof.stands === 'failed'
                  ? 'not proven'
                  : 'not proven yet'}
          </h4>
          {#if older}<p>Something has been changed since: write it again.</p>{/if}
          <p>{proof.said}</p>
          {#if proof.failures.length || proof.minds?.length}
            <ol>
              {#each [...proof.failures, ...(proof.minds ?? [])] as failure, n (n)}
                <li>
                  <b>{failure.said}</b>
                  {failure.why}
                  <span class="label"
                    >{[
                      failure.line ? `line ${number(failure.line, 9)}` : '',
                      failure.layer ? `layer ${number(failure.layer)}` : 'before the first layer'
                    ]
                      .filter(Boolean)
                      .join(', ')}{failure.at
                      ? `, at X ${number(failure.at[0]!)}, Y ${number(failure.at[1]!)}`
                      : ''}</span
                  >
                  {#each failure.fixes ?? [] as fix (fix.label)}
                    <button
                      type="button"
                      class="act small"
                      title={fill(fix.consequence, fix.slots)}
                      onclick={() => void sheet.apply(fix.edits)}>{fill(fix.label, fix.slots)}</button
                    >
                  {/each}
                </li>
              {/each}
            </ol>
          {/if}
          <Rows>
            <Row label="presses, of so many due"
              ><span>{number(proof.presses)} of {number(proof.due)}</span></Row
            >
            <Row label="longest time without printing"
              ><span
                >{duration(Math.round(proof.longest_wait_s * 10) / 10)}, line {number(
                  proof.longest_wait_line,
                  9
                )}</span
              ></Row
            >
            <Row label="without printing at the pictures, in all"
              ><span>{duration(Math.round(proof.stopped_s))}</span></Row
            >
          </Rows>
          <p class="acts">
            <a class="act small" href={address(one.kind)} download
              >Take it along{proof.stands === 'proven' && !older ? '' : ', unproven'}</a
            >
          </p>
        </article>
      {/if}
    {/each}
    {#if print?.state === 'read'}
      <p class="label">
        <a class="link" href={address('original')} download>the file as it came</a>. A printer’s own start and
        the real switch are not in the proof’s hands: press and release by hand first, and print the trial:
        count its frames, look for strings and blobs. Values do not carry from one printer to the next.
      </p>
    {/if}
  </section>
</div>

<style>
  h3:not(:first-child) {
    margin-top: 12px;
  }
  .turns dt {
    font-weight: 550;
  }
  .turns dd {
    color: var(--second);
    max-width: 66ch;
    margin: 0 0 6px;
  }
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
    gap: 0 34px;
  }
  p {
    max-width: 66ch;
    margin-bottom: 6px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 8px 0;
  }
  article {
    border-top: 1px solid var(--ink);
    padding: 8px 0;
  }
  article h4 {
    font-size: 16px;
    font-weight: 650;
  }
  [data-proof='failed'] h4::before {
    content: '✕ ';
    color: var(--stop);
  }
  [data-proof='proven'] h4::before {
    content: '✓ ';
  }
  ol {
    list-style: decimal;
    padding-left: 22px;
    margin: 6px 0;
  }
  li {
    margin-bottom: 4px;
  }
  .wrong {
    color: var(--stop);
  }
  table {
    width: 100%;
    font-size: 13px;
  }
  th {
    text-align: left;
    font-weight: 600;
  }
  td,
  th {
    border-top: 1px solid var(--hair);
    padding: 2px 8px 2px 0;
  }
  @media (max-width: 900px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
