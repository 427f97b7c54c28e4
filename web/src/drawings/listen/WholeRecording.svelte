<script lang="ts">
  import type { WholeSound } from '../../lib/api';
  /** A whole recording as loudness over time; where a take is missing it is put in by hand. */
  let {
    whole,
    struck,
    busy,
    onadd,
  }: {
    whole: WholeSound;
    struck: readonly number[];
    busy: boolean;
    onadd: (at: number) => void;
  } = $props();

  const { seconds, overview, at_s: at } = $derived(whole);
  const HEIGHT = 100;
  const STEP_S = 0.1;
  let place = $state<number | null>(null);
  const path = $derived(
    `M0 ${HEIGHT}` +
      overview.map((level, n) => `L${n} ${HEIGHT - level}`).join('') +
      `L${overview.length} ${HEIGHT}Z`,
  );
  const x = (s: number) => (overview.length * s) / Math.max(seconds, 1e-6);
  const share = (s: number) => `${(100 * s) / Math.max(seconds, 1e-6)}%`;
  const last = $derived(Math.max(seconds - STEP_S, 0));
  function pick(event: PointerEvent & { currentTarget: HTMLElement }) {
    const box = event.currentTarget.getBoundingClientRect();
    const s = (seconds * (event.clientX - box.left)) / Math.max(box.width, 1);
    place = Math.min(Math.max(Math.round(s * 100) / 100, 0), last);
  }
  function add() {
    if (place === null) return;
    onadd(place);
    place = null;
  }
</script>

<figure class="whole">
  <!-- the slider beneath does the same by key -->
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div class="strip" onpointerdown={pick}>
    <svg viewBox="0 0 {overview.length} {HEIGHT}" preserveAspectRatio="none" aria-hidden="true">
      <path d={path} />
      {#each at as one, n (n)}
        <line x1={x(one)} x2={x(one)} y1="0" y2={HEIGHT} class:struck={struck.includes(n + 1)} />
      {/each}
      {#if place !== null}<line x1={x(place)} x2={x(place)} y1="0" y2={HEIGHT} class="new" />{/if}
    </svg>
    {#each at as one, n (n)}
      <span class="number" class:struck={struck.includes(n + 1)} style:left={share(one)}
        >{n + 1}</span
      >
    {/each}
  </div>
  <figcaption>
    <label for="missing-take">A take is missing? Put it where it begins:</label>
    <input
      id="missing-take"
      type="range"
      min="0"
      max={last}
      step={STEP_S / 2}
      value={place ?? 0}
      aria-valuetext={place === null ? 'nowhere yet' : `${place.toFixed(2)} s`}
      oninput={(event) => (place = event.currentTarget.valueAsNumber)}
    />
    <button class="act" disabled={place === null || busy} onclick={add}
      >{place === null ? 'Add a take' : `Add a take at ${place.toFixed(2)} s`}</button
    >
  </figcaption>
</figure>

<style>
  .whole {
    margin: 0.5rem 0 0.75rem;
  }
  .strip {
    position: relative;
    height: 4.2rem;
    padding-top: 1.1rem;
    cursor: crosshair;
    touch-action: pan-y;
  }
  svg {
    display: block;
    width: 100%;
    height: 100%;
    border-bottom: 1px solid var(--line);
  }
  path {
    fill: var(--line);
  }
  line {
    stroke: var(--green);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
  line.struck {
    stroke: var(--soft);
    stroke-dasharray: 3 3;
  }
  line.new {
    stroke: var(--red);
  }
  .number {
    position: absolute;
    top: 0;
    transform: translateX(-50%);
    font-size: 0.8rem;
    font-weight: 600;
  }
  .number.struck {
    color: var(--soft);
    text-decoration: line-through;
  }
  figcaption {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 0.75rem;
    margin-top: 0.35rem;
    font-size: 0.9rem;
    color: var(--soft);
  }
  input {
    flex: 1 1 10rem;
    accent-color: var(--ink);
    max-width: 22rem;
    min-height: 1.75rem;
  }
</style>
