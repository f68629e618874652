import { getContext, setContext } from 'svelte';
import type { SvelteMap } from 'svelte/reactivity';

/** Whatever figures are changed on: an open sheet, or a card of the kit. */
export interface Editor {
  readonly zone: string;
  readonly troubles: SvelteMap<string, string>;
  /** What is changed: the plan, or the card. */
  readonly content: unknown;
  type(path: string, text: string): Promise<boolean>;
  set(path: string, value: number | string | boolean | null, merge?: string): Promise<boolean>;
}

const KEY = Symbol('editor');

export function handDownEditor(editor: Editor): void {
  setContext(KEY, editor);
}

/** The nearest editor; raises an error outside of any. */
export function theEditor(): Editor {
  const editor = getContext<Editor | undefined>(KEY);
  if (!editor) throw new Error('a figure to edit stands outside of a sheet or a card');
  return editor;
}
