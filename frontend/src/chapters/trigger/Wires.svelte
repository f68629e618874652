<script lang="ts">
  /** Which wire is which: a lead cut open, a switch, and what a headset's buttons are made with. */
  import { number } from '../../format';
  import { theSheet } from '../../sheet/sheet.svelte';
  import Sounding from './Sounding.svelte';

  const sheet = theSheet();
  const chain = $derived(sheet.plan.trigger!);
  const output = $derived(sheet.evaluation.trigger.output);
  const pressed = $derived(!!sheet.evaluation.trigger.verdict);
  const cards = $derived(sheet.plan.kit.copies.map((copy) => copy.card));
  const cut = $derived(cards.some((card) => card.kind === 'cable' && card.made === 'cut open'));
  const remote = $derived(sheet.evaluation.trigger.remote);
  const keys = $derived(sheet.evaluation.trigger.keys ?? []);
</script>

{#if !pressed && !chain.lead && !chain.switch && !chain.pads && !remote}
  <p class="mono-note">
    Nothing here presses a contact of the camera, so there is no wire to name. Put a switch, a pin or a lead
    that was cut open into the chain, and the meter’s readings are asked for here.
  </p>
{:else}
  <div class="leaf cols">
    <section>
      <h3>The lead to the camera</h3>
      {#if chain.lead}
        <Sounding thing="lead" />
        {#if !cut}<p class="label">
            The chain goes over a lead that was bought for this camera, so these wires are not in it.
          </p>{/if}
      {:else if cut}
        <p>
          A lead cut open has two, three or more wires, and their colours mean nothing. With a remote on its
          plug, a meter that beeps says which pair closes at half press, and which at full.
        </p>
        <button type="button" class="act small" onclick={() => sheet.begin('trigger.lead')}
          >Name the wires</button
        >
      {:else}
        <p>
          It goes through plugs that fit: nothing has to be named. Where a lead is cut open, take its card
          into the chain (made: cut open), and its wires are named here.
        </p>
      {/if}
    </section>
    <section>
      {#if chain.switch}
        <h3>The switch</h3>
        <Sounding thing="switch" />
      {:else if output === 'switch' || (chain.pads && remote)}
        <h3>The switch</h3>
        <p>
          A switch has a common contact, one that is open until it is pressed, and one that is closed until
          then. The closed one holds the shutter down.
        </p>
        <button type="button" class="act quiet small" onclick={() => sheet.begin('trigger.switch')}
          >Name its contacts</button
        >
      {/if}
      {#if chain.pads || remote}
        <h3>The remote’s button</h3>
        {#if chain.pads}
          <Sounding thing="pads" />
          {#if !remote}<p class="label">
              Nothing in this chain is soldered to a remote, so these pads are not in it.
            </p>{/if}
        {:else}
          <p>
            The head, or an arm on it, presses the button of <b>{remote}</b>. Or you solder a switch of your
            own across the pads under that button: one pair of them focuses, one fires.
          </p>
          <button type="button" class="act quiet small" onclick={() => sheet.begin('trigger.pads')}
            >Find its pads</button
          >
        {/if}
      {/if}
      {#if keys.length}
        <h3>A headset’s plug</h3>
        <p>
          A phone tells the buttons of a wired headset by what they put between microphone and ground; so does
          the published headset specification. On the plug, tip and first ring are left and right; which of
          the other two is the microphone differs between makers: measure it against the headset that works.
        </p>
        <table>
          <thead
            ><tr><th scope="col">button</th><th scope="col">resistor</th><th scope="col">read as such</th></tr
            ></thead
          >
          <tbody>
            {#each keys as { key, ohms, low, high } (key)}
              <tr
                ><th scope="row">{key}</th><td>{number(ohms)} Ω</td><td
                  >{low ? `${number(low)} to ${number(high)} Ω` : `${number(high)} Ω or less`}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      {/if}
    </section>
  </div>
{/if}

<style>
  .cols {
    display: grid;
    grid-template-columns: 1.2fr 1fr;
    gap: 0 36px;
  }
  p {
    max-width: 62ch;
    margin-bottom: 8px;
  }
  @media (max-width: 1000px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
