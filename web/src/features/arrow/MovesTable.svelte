<script lang="ts">
  import type { SpineBoard } from '../../lib/api';
  import { tell } from '../../lib/preferences.svelte';

  let { board }: { board: SpineBoard } = $props();

  const most = $derived(Math.max(...board.moves.map((move) => Math.abs(move.pounds ?? 0)), 1));
  function said(pounds: number | null | undefined, rough: boolean): string {
    if (pounds == null) return 'no match';
    const size = Math.abs(pounds).toFixed(1);
    return `${rough ? 'about ' : ''}${pounds < 0 ? '−' : '+'}${size} lb`;
  }
</script>

<section aria-labelledby="moves">
  <h2 id="moves">What moves the match</h2>
  <table class="rows mt-1">
    <thead
      ><tr><th>Change</th><th>It then wants</th><th><span class="sr-only">Size</span></th></tr
      ></thead
    >
    <tbody>
      {#each board.moves as move (move.change)}
        <tr>
          <td>{tell(move.step)}</td>
          <td class="whitespace-nowrap">{said(move.pounds, move.rough)}</td>
          <td class="w-1/3">
            <svg
              viewBox="-50 0 100 10"
              class="h-3 w-full"
              preserveAspectRatio="none"
              aria-hidden="true"
            >
              <line
                x1="0"
                x2="0"
                y1="0"
                y2="10"
                stroke="var(--soft)"
                vector-effect="non-scaling-stroke"
              />
              <rect
                x={Math.min(((move.pounds ?? 0) / most) * 48, 0)}
                width={(Math.abs(move.pounds ?? 0) / most) * 48}
                y="2"
                height="6"
                fill={move.rough ? 'var(--line)' : 'var(--blue)'}
              />
            </svg>
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="mt-1 text-sm text-soft">
    + wants a stiffer shaft: yours acts weaker. Draw and weight held; “about” where only the
    direction and the rough size are sure.
  </p>
</section>
