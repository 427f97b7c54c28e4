<script lang="ts">
  import type { Spectrogram } from '../../lib/api';
  import { preferences } from '../../lib/preferences.svelte';

  let {
    picture,
    marks,
    says,
  }: {
    picture: Spectrogram;
    /** What was found, where it is [ms]. */
    marks: readonly { ms: number; words: string }[];
    /** The same in words. */
    says: string;
  } = $props();

  let canvas = $state<HTMLCanvasElement>();
  const columns = $derived(picture.cells[0]?.length ?? 0);
  const rows = $derived(picture.cells.length);
  const wide = $derived(columns * picture.hop_ms);
  const across = (ms: number) => (100 * (ms - picture.from_ms)) / wide;
  const NOTES = [100, 200, 500, 1000, 2000, 5000];
  const low = $derived(picture.rows_hz[0] ?? 80);
  const high = $derived(picture.rows_hz.at(-1) ?? 7000);
  const up = (hz: number) => 100 * (1 - Math.log(hz / low) / Math.log(high / low));

  /** Ink on paper: the louder the darker; in the dark theme the other way round. */
  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    void preferences.theme;
    const style = getComputedStyle(canvas);
    const ink = rgb(style.getPropertyValue('--ink'));
    const paper = rgb(style.getPropertyValue('--paper'));
    const image = context.createImageData(columns, rows);
    picture.cells.forEach((row, n) =>
      row.forEach((cell, column) => {
        const share = (cell / 60) ** 1.4;
        const at = 4 * ((rows - 1 - n) * columns + column);
        for (let c = 0; c < 3; c++)
          image.data[at + c] = (paper[c] ?? 0) + share * ((ink[c] ?? 0) - (paper[c] ?? 0));
        image.data[at + 3] = 255;
      }),
    );
    context.putImageData(image, 0, 0);
  });
  function rgb(hex: string): number[] {
    const plain = hex.trim().slice(1);
    return [0, 2, 4].map((at) => parseInt(plain.slice(at, at + 2), 16));
  }
</script>

<figure>
  <div class="frame">
    <canvas bind:this={canvas} width={columns} height={rows} aria-hidden="true"></canvas>
    {#each NOTES.filter((hz) => hz > low && hz < high) as hz (hz)}
      <span class="note" style:top="{up(hz)}%" aria-hidden="true"
        >{hz < 1000 ? hz : `${hz / 1000}k`}</span
      >
    {/each}
    <span class="home" style:left="{across(0)}%" aria-hidden="true"></span>
    {#each marks as mark (mark.ms)}
      {#if across(mark.ms) < 100}
        <span class="click" style:left="{across(mark.ms)}%" title={mark.words} aria-hidden="true"
        ></span>
      {/if}
    {/each}
  </div>
  <div class="axis" aria-hidden="true">
    {#each [0, 100, 200, 300] as ms (ms)}
      <span style:left="{across(ms)}%">{ms}{ms === 300 ? ' ms' : ''}</span>
    {/each}
  </div>
  <figcaption class="text-sm text-soft">{says}</figcaption>
</figure>

<style>
  .frame {
    position: relative;
    margin-left: 2.6rem;
    height: 15rem;
    border: 1px solid var(--line);
  }
  canvas {
    width: 100%;
    height: 100%;
    display: block;
  }
  .note {
    position: absolute;
    right: 100%;
    margin-right: 0.35rem;
    transform: translateY(-50%);
    font-size: 0.8rem;
    color: var(--soft);
  }
  .home {
    position: absolute;
    top: 0;
    bottom: 0;
    border-left: 1px dashed var(--blue);
  }
  .click {
    position: absolute;
    top: 0;
    height: 1rem;
    width: 3px;
    margin-left: -1.5px;
    background: var(--amber);
  }
  .axis {
    position: relative;
    height: 1.3rem;
    margin-left: 2.6rem;
    font-size: 0.8rem;
    color: var(--soft);
  }
  .axis span {
    position: absolute;
    transform: translateX(-50%);
  }
</style>
