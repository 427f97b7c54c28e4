<script lang="ts">
  import type { Stage } from '../lib/api';
  import { tell } from '../lib/preferences.svelte';
  import Told from './Told.svelte';

  let {
    stage,
    about,
    brief = false,
    own = false,
  }: {
    stage: Stage;
    about: string;
    /** Leave the line out on a phone, where every line counts. */
    brief?: boolean;
    /** True where the page has a sentence of its own. */
    own?: boolean;
  } = $props();
</script>

<header class="mb-3">
  <h1>{stage.name}</h1>
  {#if stage.answer && !own}
    <p class="text-[1.1rem] font-semibold"><Told text={tell(stage.answer)} /></p>
  {/if}
  <p class="text-soft" class:max-md:hidden={brief}><Told text={about} /></p>
  {#if stage.moved}
    <p class="mt-2 text-amber"><strong>In doubt.</strong> {tell(stage.moved)}</p>
  {/if}
</header>
