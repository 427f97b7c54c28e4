<script lang="ts">
  import type { Stage } from '../lib/api';
  import { tell } from '../lib/preferences.svelte';

  let { stage, about }: { stage: Stage; about: string } = $props();
</script>

<header class="mb-3">
  <h1>{stage.name}</h1>
  <p class="text-soft">{about}</p>
  {#if stage.moved}
    <p class="mt-2 text-amber"><strong>In doubt.</strong> {tell(stage.moved)}</p>
  {/if}
</header>
