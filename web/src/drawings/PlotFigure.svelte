<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Plot } from './plot.svelte';

  let {
    plot,
    label,
    dragged = false,
    children,
  }: {
    plot: Plot;
    /** What the chart shows, for who does not see it. */
    label: string;
    /** Something on it is dragged: a finger still scrolls the page up and down. */
    dragged?: boolean;
    children: Snippet;
  } = $props();
</script>

<figure bind:clientWidth={plot.width}>
  <svg
    viewBox="0 0 {plot.across} {plot.height}"
    class="w-full"
    class:touch-pan-y={dragged}
    role={dragged ? 'group' : 'img'}
    aria-label={label}
  >
    {@render children()}
  </svg>
</figure>
