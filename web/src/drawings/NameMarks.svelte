<script lang="ts">
  import type { Term } from '../lib/api';

  let {
    terms,
    places,
  }: { terms: Term[]; places: Partial<Record<string, readonly [number, number]>> } = $props();
</script>

{#each terms as term, i (term.key)}
  {@const place = places[term.key]}
  {#if place}
    <g aria-hidden="true">
      <circle cx={place[0]} cy={place[1]} r="10" />
      <text x={place[0]} y={place[1]} dy="4.5" text-anchor="middle">{i + 1}</text>
    </g>
  {/if}
{/each}

<style>
  circle {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  text {
    font-weight: 600;
  }
</style>
