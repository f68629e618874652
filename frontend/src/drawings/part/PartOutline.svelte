<script lang="ts">
  /** A thing of the kit in outline, standing on its shelf: proportions from its card, at most so large. */
  import type { KitCard } from '../../api/client';

  interface Props {
    card: KitCard;
    /** Height of the shelf's opening in pixels. */
    tall?: number;
  }
  let { card, tall = 92 }: Props = $props();
  const WIDE = 132;
  const TALL = $derived(tall);
  const BASE = $derived(TALL - 1);
  const clamp = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value));

  const body = $derived(
    card.kind === 'body' || card.kind === 'phone'
      ? { w: clamp(card.width_mm * 0.55, 40, 96), h: clamp(card.height_mm * 0.55, 28, 66) }
      : { w: 70, h: 50 }
  );
  const lens = $derived(
    card.kind === 'lens'
      ? { w: clamp(card.diameter_mm * 0.55, 22, 60), h: clamp(card.length_mm * 0.55, 18, 84) }
      : { w: 36, h: 36 }
  );
  const rail = $derived(
    card.kind === 'axis' ? clamp((card.length_mm || card.high - card.low) * 0.12, 70, 128) : 110
  );
  const middle = WIDE / 2;
</script>

<svg viewBox="0 0 {WIDE} {TALL}" width={WIDE} height={TALL} aria-hidden="true">
  {#if card.kind === 'body'}
    <rect x={middle - body.w / 2} y={BASE - body.h} width={body.w} height={body.h} />
    <path d="M{middle - 12} {BASE - body.h}l5 -9h14l5 9" />
    <circle cx={middle} cy={BASE - body.h / 2} r={body.h * 0.33} />
    <circle class="hair" cx={middle} cy={BASE - body.h / 2} r={body.h * 0.24} />
    <path class="hair" d="M{middle + body.w / 2 - 10} {BASE - body.h}v{body.h}" />
  {:else if card.kind === 'phone'}
    <rect x={middle - body.w / 2} y={BASE - body.h} width={body.w} height={body.h} rx="4" />
    <circle cx={middle - body.w / 2 + 11} cy={BASE - body.h + 11} r="5" />
  {:else if card.kind === 'lens'}
    <path
      d="M{middle - lens.w * 0.42} {BASE}V{BASE - lens.h * 0.3}H{middle - lens.w / 2}V{BASE -
        lens.h}H{middle + lens.w / 2}V{BASE - lens.h * 0.3}H{middle + lens.w * 0.42}V{BASE}Z"
    />
    <path
      class="hair"
      d="M{middle - lens.w / 2} {BASE - lens.h * 0.55}h{lens.w}M{middle - lens.w / 2} {BASE -
        lens.h * 0.8}h{lens.w}"
    />
  {:else if card.kind === 'filter'}
    <rect x={middle - 30} y={BASE - 8} width="60" height="8" />
    <path class="hair" d="M{middle - 24} {BASE - 8}v8M{middle + 24} {BASE - 8}v8" />
  {:else if card.kind === 'axis' && card.motion === 'linear'}
    <rect x={middle - rail / 2} y={BASE - 16} width={rail} height="9" />
    <rect x={middle - 15} y={BASE - 25} width="30" height="9" />
    <path class="hair" d="M{middle - rail / 2} {BASE - 11.5}h{rail}" />
    <path d="M{middle - rail / 2 + 4} {BASE - 7}v7M{middle + rail / 2 - 4} {BASE - 7}v7" />
    {#if card.drive.kind === 'belt'}<circle cx={middle + rail / 2 - 7} cy={BASE - 11.5} r="6.5" />
    {:else if card.drive.kind === 'screw'}<path
        class="hair"
        d="M{middle - rail / 2} {BASE - 14}l4 5l4 -5l4 5l4 -5l4 5l4 -5l4 5"
      />{/if}
  {:else if card.kind === 'axis'}
    <rect x={middle - 27} y={BASE - 13} width="54" height="13" />
    <rect x={middle - 21} y={BASE - 22} width="42" height="9" />
    <path class="hair" d="M{middle} {BASE - 22}v22" />
    {#if card.drive.kind === 'clockwork'}
      <path d="M{middle - 34} {BASE - 30}a34 12 0 0 1 60 -4m0 0l-8 -3m8 3l-2 -8" />
    {:else if card.turns === 'tilt' || card.more?.length}
      <circle cx={middle} cy={BASE - 40} r="17" /><path class="hair" d="M{middle - 17} {BASE - 40}h34" />
    {/if}
  {:else if card.kind === 'support' && card.form === 'mast'}
    <path d="M{middle - 4} {BASE}V6h8V{BASE}M{middle - 18} {BASE}h36" />
  {:else if card.kind === 'support' && card.form === 'clamp'}
    <path d="M{middle - 16} {BASE}V{BASE - 44}h32v14h-20v16h20v14" />
  {:else if card.kind === 'support'}
    <rect x={middle - 9} y="8" width="18" height="14" />
    <path
      d="M{middle - 6} 22L{middle - 34} {BASE}M{middle} 22V{BASE - 4}M{middle + 6} 22L{middle + 34} {BASE}"
    />
  {:else if card.kind === 'mount' && card.form === 'bush'}
    <rect x={middle - 11} y={BASE - 22} width="22" height="22" />
    <path class="hair" d="M{middle - 11} {BASE - 17}h22m-22 5h22m-22 5h22m-22 5h22" />
  {:else if card.kind === 'mount' && card.form === 'bracket'}
    <path d="M{middle - 26} {BASE}v-8h42v-46h9v54z" />
  {:else if card.kind === 'mount' && card.form === 'ball head'}
    <rect x={middle - 17} y={BASE - 20} width="34" height="20" />
    <circle cx={middle} cy={BASE - 27} r="12" />
    <path d="M{middle - 20} {BASE - 46}h40v7h-40z" />
  {:else if card.kind === 'mount'}
    <path d="M{middle - 30} {BASE}l5 -11h50l5 11z" />
    <path class="hair" d="M{middle} {BASE - 11}v-6" />
  {:else if card.kind === 'trigger' && card.source === 'switch'}
    <rect x={middle - 22} y={BASE - 22} width="44" height="22" />
    <path d="M{middle - 14} {BASE - 22}l26 -12M{middle + 6} {BASE - 22}v-5" />
    <path class="hair" d="M{middle - 14} {BASE}v6M{middle} {BASE}v6M{middle + 14} {BASE}v6" />
  {:else if card.kind === 'trigger' && (card.source === 'pin' || card.source === 'host command')}
    <rect x={middle - 30} y={BASE - 30} width="60" height="30" />
    <path class="hair" d="M{middle - 24} {BASE - 26}h48m-48 22h48" stroke-dasharray="2 4" />
    <rect x={middle - 10} y={BASE - 20} width="20" height="11" />
  {:else if card.kind === 'coupling' && card.form === 'resistor'}
    <path d="M{middle - 36} {BASE - 12}h18m36 0h18" />
    <rect x={middle - 18} y={BASE - 18} width="36" height="12" />
  {:else if card.kind === 'coupling'}
    <rect x={middle - 20} y={BASE - 32} width="40" height="26" />
    <path d="M{middle - 12} {BASE - 6}v6M{middle} {BASE - 6}v6M{middle + 12} {BASE - 6}v6" />
    {#if card.form === 'relay'}<path
        class="hair"
        d="M{middle - 12} {BASE - 12}l10 -12M{middle + 4} {BASE - 12}h10"
      />
    {:else}<path class="hair" d="M{middle - 12} {BASE - 24}l8 5l-8 5zM{middle + 2} {BASE - 19}h10" />{/if}
  {:else if card.kind === 'cable'}
    <path d="M{middle - 40} {BASE - 8}h16c20 0 4 -26 24 -26s4 26 24 26h16" />
    <rect x={middle - 48} y={BASE - 12} width="10" height="8" />
    <rect x={middle + 38} y={BASE - 12} width="10" height="8" />
  {:else if card.kind === 'supply'}
    <rect x={middle - 26} y={BASE - 26} width="44" height="26" />
    <path d="M{middle + 18} {BASE - 12}c16 0 10 -16 24 -16M{middle - 26} {BASE - 18}h-8m8 10h-8" />
  {:else if card.kind === 'printer'}
    <path d="M{middle - 40} {BASE}V{BASE - 72}H{middle + 40}V{BASE}" />
    <path d="M{middle - 48} {BASE}h96M{middle - 34} {BASE - 12}h68v-6h-68z" />
    <path class="hair" d="M{middle - 40} {BASE - 46}h80" />
    <path d="M{middle - 8} {BASE - 52}h18v14h-6l-3 7l-3 -7h-6z" />
  {:else if card.kind === 'head switch'}
    <rect x={middle - 22} y={BASE - 26} width="40" height="20" />
    <path
      d="M{middle - 20} {BASE - 26}l36 -10M{middle - 14} {BASE - 6}v6M{middle} {BASE - 6}v6M{middle +
        12} {BASE - 6}v6"
    />
    <circle class="hair" cx={middle - 12} cy={BASE - 16} r="2.5" /><circle
      class="hair"
      cx={middle + 8}
      cy={BASE - 16}
      r="2.5"
    />
  {:else if card.kind === 'trigger'}
    <rect x={middle - 17} y={BASE - 40} width="34" height="40" />
    <circle cx={middle} cy={BASE - 29} r="6" />
    <path d="M{middle + 17} {BASE - 8}c16 0 14 -30 28 -30" />
  {:else if card.kind === 'battery'}
    <rect x={middle - 18} y={BASE - 44} width="36" height="44" />
    <path d="M{middle - 9} {BASE - 44}v-4h7v4M{middle + 3} {BASE - 44}v-4h7v4" />
    <path class="hair" d="M{middle - 18} {BASE - 32}h36" />
  {:else if card.kind === 'card'}
    <path d="M{middle - 15} {BASE}v-40h22l8 8v32z" />
    <path class="hair" d="M{middle - 9} {BASE - 40}v10m5 -10v10m5 -10v10" />
  {:else if card.kind === 'panel'}
    <path d="M{middle - 40} {BASE - 10}l16 -44h50l-16 44z" />
    <path
      class="hair"
      d="M{middle - 32} {BASE - 32}h50M{middle - 23} {BASE - 10}l16 -44M{middle - 7} {BASE - 10}l16 -44"
    />
    <path d="M{middle - 4} {BASE - 10}v10h22l-8 -20" />
  {:else if card.kind === 'box'}
    <rect x={middle - 40} y={BASE - 50} width="70" height="44" />
    <path d="M{middle + 30} {BASE - 40}h6v24h-6M{middle - 44} {BASE - 56}h86l6 8" />
    <path class="hair" d="M{middle - 20} {BASE - 6}v4c0 6 -14 6 -14 -2M{middle - 34} {BASE - 28}h52" />
  {:else if card.kind === 'lamp'}
    <path d="M{middle - 8} {BASE}h16M{middle} {BASE}v-30M{middle - 24} {BASE - 30}h48l-12 -30h-24z" />
    <path class="hair" d="M{middle - 20} {BASE - 22}l-8 8m48 -8l8 8" />
  {/if}
</svg>

<style>
  svg {
    display: block;
  }
  svg > * {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-linejoin: miter;
  }
  .hair {
    stroke: var(--second);
    stroke-width: 1;
  }
</style>
