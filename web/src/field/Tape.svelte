<script lang="ts">
  let {
    value,
    least,
    most,
    unit,
    onmove,
  }: {
    value: number;
    least: number;
    most: number;
    unit: string;
    onmove: (value: number) => void;
  } = $props();

  /** Pixels of one metre or yard. */
  const EACH = 13.5;
  let width = $state(366);
  let from: { x: number; value: number } | null = null;

  const held = (wanted: number) => Math.min(Math.max(Math.round(wanted), least), most);
  const reach = $derived(Math.ceil(width / EACH / 2) + 1);
  const ticks = $derived(
    Array.from({ length: 2 * reach + 1 }, (_, at) => value - reach + at).filter(
      (one) => one >= least && one <= most,
    ),
  );
  const x = (one: number) => width / 2 + (one - value) * EACH;

  const KEYS: Record<string, number> = {
    ArrowRight: 1,
    ArrowUp: 1,
    ArrowLeft: -1,
    ArrowDown: -1,
    PageUp: 5,
    PageDown: -5,
    Home: -1000,
    End: 1000,
  };
  function press(event: KeyboardEvent) {
    const by = KEYS[event.key];
    if (!by) return;
    event.preventDefault();
    onmove(held(value + by * (event.shiftKey ? 5 : 1)));
  }
  function begin(event: PointerEvent) {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    from = { x: event.clientX, value };
  }
  function move(event: PointerEvent) {
    if (from) onmove(held(from.value - (event.clientX - from.x) / EACH));
  }
</script>

<div
  class="tape"
  role="slider"
  tabindex="0"
  aria-label="Distance"
  aria-valuemin={least}
  aria-valuemax={most}
  aria-valuenow={value}
  aria-valuetext={`${value} ${unit === 'yd' ? 'yards' : 'metres'}`}
  bind:clientWidth={width}
  onkeydown={press}
  onpointerdown={begin}
  onpointermove={move}
  onpointerup={() => (from = null)}
  onpointercancel={() => (from = null)}
>
  <svg {width} height="70" aria-hidden="true">
    <line class="edge" x1="0" x2={width} y1="0.5" y2="0.5" />
    {#each ticks as one (one)}
      <line class="tick" x1={x(one)} x2={x(one)} y1="0" y2={one % 5 === 0 ? 18 : 9} />
      {#if one % 5 === 0 && one !== value}<text x={x(one)} y="37" text-anchor="middle">{one}</text
        >{/if}
    {/each}
    <line class="hand" x1={width / 2} x2={width / 2} y1="0" y2="46" />
    <circle class="knob" cx={width / 2} cy="54" r="15" />
    <path class="arrows" d={`M${width / 2 - 4} 49l-5 5 5 5 M${width / 2 + 4} 49l5 5 -5 5`} />
  </svg>
</div>

<style>
  .tape {
    touch-action: none;
    cursor: ew-resize;
    overflow: hidden;
    border-radius: 4px;
  }
  svg {
    display: block;
  }
  text {
    fill: var(--ink);
    font-size: 19px;
  }
  .tick {
    stroke: var(--ink);
  }
  .edge {
    stroke: var(--line);
  }
  .hand {
    stroke: var(--red);
    stroke-width: 3;
  }
  .knob {
    fill: var(--red);
  }
  .arrows {
    fill: none;
    stroke: var(--paper);
    stroke-width: 2;
  }
</style>
