<script lang="ts">
  /** Indoors, with daylight kept out: what steady lamps ask for, and how to say that it is otherwise. */
  import { theSheet } from '../../sheet/sheet.svelte';

  const sheet = theSheet();
</script>

<div class="leaf steady">
  <p class="lead">
    Lamps light this scene, and daylight is kept out: one exposure, one focus and one white balance for all
    frames, locked. Nothing flickers then.
  </p>
  <p>
    Under lamps on the mains expose for a whole number of their half cycles: 1/100 s, 1/50 s, 1/25 s at 50 Hz;
    1/120 s, 1/60 s, 1/30 s at 60 Hz.
  </p>
  <button type="button" class="act quiet small" onclick={() => sheet.put('light.daylight', true)}
    >Daylight does come in</button
  >
</div>

<style>
  .steady {
    max-width: 70ch;
  }
  .lead {
    font-size: 17px;
    margin: 12px 0;
  }
  .act {
    margin-top: 12px;
  }
</style>
