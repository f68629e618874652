<script lang="ts">
  /** What is kept and cannot be read: said on its own line, with its text to take along. */
  interface Props {
    kind: 'shoot' | 'card' | 'run' | 'log' | 'print';
    id: number;
    said: string;
  }
  let { kind, id, said }: Props = $props();
</script>

<p data-broken>
  {said}
  <a class="link" href="/files/rows/{kind}/{id}.txt" download>Take its text along</a>
</p>
