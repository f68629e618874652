<script lang="ts">
  /** When each mark is in the picture, and who has to be there in time. */
  import { clock, number, write } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
  const sights = $derived(sheet.evaluation.view?.sights ?? []);
  const bodies = $derived(sheet.evaluation.view?.bodies ?? []);
  const cues = $derived(sights.filter((sight) => sight.cue));
  const when = (at: number) => clock(at, sheet.zone);
</script>

<h3>In the picture</h3>
{#if sights.length}
  <table>
    <thead
      ><tr><th scope="col">mark</th><th scope="col">frames</th><th scope="col">on the clock</th></tr></thead
    >
    <tbody>
      {#each sights as sight (sight.index)}
        <tr>
          <th scope="row">{sight.name}</th>
          <td
            >{sight.runs.map(([a = 0, b = 0]) => `${number(a + 1, 12)} to ${number(b + 1, 12)}`).join(', ') ||
              'never'}</td
          >
          <td>{sight.clocks.map(([a = 0, b = 0]) => `${when(a)} to ${when(b)}`).join(', ')}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{:else}
  <p class="mono-note">
    As soon as marks stand on the drawing and the clip is closed, it says when each is seen.
  </p>
{/if}
{#each bodies as body (body.name)}
  <p class="sky">
    <b>the {body.name}</b>
    {body.frames ? `${body.words}: ${write(body.frames, 'frames')}` : 'never in the picture'}
  </p>
{/each}
{#if cues.length}
  <h3>Cue list</h3>
  <ol class="cues">
    {#each cues as cue (cue.index)}
      <li>
        <b>{cue.name}</b>
        {#if cue.runs.length}
          there from {when(cue.clocks[0]?.[0] ?? 0)}, for {cue.clocks
            .map(([a = 0, b = 0]) => write(Math.max(b - a, 0), 's'))
            .join(', ')}; stand still while the shutter is open.
        {:else}never in the picture.{/if}
      </li>
    {/each}
  </ol>
{/if}
