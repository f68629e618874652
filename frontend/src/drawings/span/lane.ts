/** A line of the span: what a chapter shows of the shoot on its clock. */
import type { Component } from 'svelte';
import type { SpanView } from './state.svelte';

export interface Lane {
  key: string;
  /** It lies behind all others. */
  behind?: boolean;
  /** What is drawn, within the drawing. */
  Drawn?: Component<{ span: SpanView }>;
  /** What can be taken hold of, over the drawing. */
  Held?: Component<{ span: SpanView }>;
}
