import { untrack } from 'svelte';
import { calm } from './grasp';

/** What is shown of something above a drawing: it changes only while no hand holds anything of that. */
export class Calmly<T> {
  value = $state.raw() as T;

  constructor(now: () => T) {
    this.value = untrack(now);
    $effect(() => {
      const next = now();
      void calm().then(() => (this.value = next));
    });
  }
}
