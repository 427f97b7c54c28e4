<script lang="ts">
  import type { Stage } from '../lib/api';
  import { bench } from '../lib/bench.svelte';
  import { tell } from '../lib/preferences.svelte';

  let { stage, about }: { stage: Stage; about: string } = $props();

  const stops = $derived(
    (bench.assessment?.findings ?? []).filter((finding) => finding.severity === 'stop'),
  );
</script>

<header class="mb-3">
  <h1>{stage.name}</h1>
  <p class="text-soft">{about}</p>
  {#each stops as stop (stop.id)}
    <p class="stop" role="alert"><strong>Stop.</strong> {tell(stop.sentence)}</p>
  {/each}
  {#if stage.moved}
    <p class="mt-2 text-amber"><strong>In doubt.</strong> {stage.moved}</p>
  {/if}
</header>

<style>
  .stop {
    margin-top: 0.6rem;
    border-left: 5px solid var(--red);
    background: color-mix(in srgb, var(--red) 9%, var(--paper));
    padding: 0.5rem 0.75rem;
  }
  .stop strong {
    color: var(--red);
  }
</style>
