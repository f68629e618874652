<script lang="ts">
  /** The knobs by which a change of the interval is dragged: more to hit than is drawn. */
  import { clock } from '../../../format';
  import { grasp } from '../../../parts/grasp';
  import { elapsedAt } from '../../../sheet/series';
  import type { SpanView } from '../state.svelte';
  import { changeGrip, changesOf } from './changes';

  let { span }: { span: SpanView } = $props();
  const { sheet } = $derived(span);
  const seen = $derived(
    changesOf(sheet)
      .map((change) => ({ ...change, x: span.xOf(change.frame) }))
      .filter(({ x }) => span.seen(x))
  );
  // A grip keeps what it took hold of: one for each, however often it is drawn.
  const grips = new Map<number, ReturnType<typeof changeGrip>>();
  function grip(segment: number) {
    if (!grips.has(segment)) grips.set(segment, changeGrip(span, segment));
    return grips.get(segment)!;
  }
</script>

{#each seen as { segment, frame, x } (segment)}
  <div
    role="slider"
    tabindex="0"
    class="absolute top-0 h-[30px] w-6 -translate-x-1/2 cursor-col-resize touch-none px-1.5 pt-1 max-phone:h-[44px] max-phone:w-[44px] max-phone:px-4"
    style:left="{x}px"
    aria-label="Change of the interval after segment {segment + 1}"
    aria-valuenow={frame + 1}
    aria-valuetext="at frame {frame + 1}, {clock(sheet.start + elapsedAt(span.map, frame), sheet.zone)}"
    use:grasp={grip(segment)}
  >
    <i class="block h-2.5 w-3 bg-ink"></i>
  </div>
{/each}
