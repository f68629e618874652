/** What the sheet knows of a chapter before it is opened. */
import type { Component } from 'svelte';
import type { Lane } from '../drawings/span/lane';

export interface Leaf {
  key: string;
  label: string;
  /** While something is dragged here the whole answer is drawn, not just the lines and the figures that stand. */
  whole?: boolean;
  /** While something is dragged here the drawing of the light is whole, beside those lines and figures. */
  lit?: boolean;
  /** While something is dragged here the calendar of work windows is whole, beside those lines and figures. */
  windows?: boolean;
  /** Folded away where the core does not say that the shoot has a use for it. */
  folds?: boolean;
}

export interface Chapter {
  /** Its part of the address. */
  key: string;
  label: string;
  /** The chapter itself, loaded when it is first opened. */
  load: () => Promise<{ default: Component }>;
  /** The parts it is turned to, the first of which lies open at first; none where it is one page. */
  leaves: readonly Leaf[];
  /** Folded away where the core does not say that the shoot has a use for it. */
  folds?: boolean;
  /** What it shows on the span, from the first chapter drawn under the next ones. */
  lanes: readonly Lane[];
}

/** The leaf that is asked for; the first where there is none such. */
export function leafOf(chapter: Chapter | undefined, key: string | undefined): Leaf | undefined {
  return chapter?.leaves.find((leaf) => leaf.key === key) ?? chapter?.leaves[0];
}
