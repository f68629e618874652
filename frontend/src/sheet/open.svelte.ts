/** Which shoot lies open in this window, by its identity; nothing while none does. */
class Open {
  identity = $state<string | null>(null);
}

export const theOpen = new Open();
