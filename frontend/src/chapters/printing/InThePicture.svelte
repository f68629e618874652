<script lang="ts">
  /** Where the part stands before the camera, and the empty bed, the finished part and the parked head in its picture. */
  import Editable from '../../parts/Editable.svelte';
  import FigureRow from '../../parts/FigureRow.svelte';
  import Row from '../../parts/Row.svelte';
  import Rows from '../../parts/Rows.svelte';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const plan = $derived(sheet.plan.printing ?? {});
  const marks = $derived(sheet.plan.move?.marks ?? []);
  const framed = $derived(sheet.evaluation.printing.framed);
  const SIDES = [
    { value: 'front', label: 'its front' },
    { value: 'left', label: 'its left' },
    { value: 'back', label: 'its back' },
    { value: 'right', label: 'its right' }
  ] as const;
  const WIDE = 200;
  const tall = $derived(framed ? (WIDE * framed.sides[1]!) / framed.sides[0]! : 0);
  /** A span of the picture as a rectangle, cut where it is far outside. */
  function box([left, right, low, high]: readonly number[]) {
    const at = (share: number) => Math.max(-0.62, Math.min(0.62, share));
    const [x, y] = [at(left!), at(high!)];
    return {
      x: WIDE * x,
      y: -tall * y,
      width: WIDE * Math.max(0, at(right!) - x),
      height: tall * Math.max(0, y - at(low!))
    };
  }
</script>

<div class="where">
  <Rows>
    {#if marks.length}
      <Row label="the finished part in the scene"
        ><select
          aria-label="the finished part in the scene"
          value={String(plan.mark ?? '')}
          onchange={(event) =>
            sheet.put(
              'printing.mark',
              event.currentTarget.value === '' ? null : Number(event.currentTarget.value)
            )}
        >
          <option value="">no mark of Move</option>
          {#each marks as mark, n (n)}
            {#if mark.form !== 'bearing'}<option value={String(n)}>{mark.name}</option>{/if}
          {/each}
        </select></Row
      >
    {/if}
    {#if plan.mark === null || plan.mark === undefined}
      <Row label="from lens to part"
        ><Editable
          path="printing.distance_mm"
          label="from lens to part"
          unit="mm"
          empty="not measured"
        /></Row
      >
    {/if}
    {#if framed}
      <Row label="the camera looks at"
        ><select
          aria-label="the camera looks at"
          value={plan.seen_from ?? 'front'}
          onchange={(event) => sheet.put('printing.seen_from', event.currentTarget.value)}
        >
          {#each SIDES as one (one.value)}<option value={one.value}>{one.label}</option>{/each}
        </select></Row
      >
    {/if}
    <FigureRow label="the picture takes in, across" figure="printing.wide" />
    <FigureRow label="sharp over" figure="printing.sharp" />
  </Rows>
</div>
{#if framed}
  <svg
    viewBox="{-WIDE * 0.64} {-tall * 0.64} {WIDE * 1.28} {tall * 1.28}"
    role="img"
    aria-label="the picture, with the part in its first and its last frame{framed.head.length
      ? ', and the parked head in the last'
      : ''}"
  >
    <rect class="picture" x={-WIDE / 2} y={-tall / 2} width={WIDE} height={tall} />
    <rect class="last" {...box(framed.last)} />
    <rect class="first" {...box(framed.first)} />
    {#if framed.head.length}
      {@const head = box(framed.head)}
      <rect class="head" {...head} />
      {#if head.width > 0 && head.height > 0}
        <path class="head" d="M{head.x} {head.y}l{head.width} {head.height}" />
      {/if}
    {/if}
  </svg>
  <p class="label keys">
    <span><i class="solid"></i>finished part</span><span><i class="thick"></i>first frame</span>
    {#if framed.head.length}<span><i class="dashed"></i>parked head, last frame</span>{/if}
  </p>
{/if}

<style>
  .where {
    max-width: 420px;
  }
  select {
    font: inherit;
    color: inherit;
    background: transparent;
    border: 0;
    border-bottom: 2px dotted var(--second);
    max-width: 22ch;
    text-align: right;
  }
  option {
    background: var(--sheet);
  }
  svg {
    display: block;
    height: 190px;
    max-width: 100%;
    margin-top: 8px;
  }
  rect,
  path {
    fill: none;
    stroke: var(--ink);
    vector-effect: non-scaling-stroke;
  }
  .picture {
    stroke-width: 2;
    fill: var(--film);
  }
  .last {
    fill: var(--wash);
  }
  .first {
    stroke-width: 3;
  }
  .head {
    stroke-dasharray: 4 3;
  }
  .keys {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
  }
  .keys i {
    display: inline-block;
    width: 18px;
    margin-right: 6px;
    vertical-align: middle;
    border-top: 1px solid var(--ink);
  }
  .keys .thick {
    border-top-width: 3px;
  }
  .keys .dashed {
    border-top-style: dashed;
  }
  @media (max-width: 900px) {
    select {
      min-height: 44px;
    }
  }
</style>
