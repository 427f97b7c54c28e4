<script lang="ts">
  import type { Stage } from '../lib/api';
  import { tell } from '../lib/preferences.svelte';
  import Told from './Told.svelte';

  let {
    stage,
    about,
    brief = false,
  }: {
    stage: Stage;
    about: string;
    /** Leave the line out on a phone, where every line counts. */
    brief?: boolean;
  } = $props();
</script>

<header class="mb-3">
  <h1>{stage.name}</h1>
  <p class="text-soft" class:max-md:hidden={brief}><Told text={about} /></p>
  {#if stage.moved}
    <p class="mt-2 text-amber"><strong>In doubt.</strong> {tell(stage.moved)}</p>
  {/if}
</header>
