<script lang="ts">
  import type { SVGAttributes } from 'svelte/elements';

  /** The round red handle of a drawing; what it is a slider of comes with it. */
  let {
    x,
    y,
    label,
    low,
    high,
    now,
    says,
    ...rest
  }: {
    x: number;
    y: number;
    label: string;
    low: number;
    high: number;
    now: number;
    /** The value in words. */
    says: string;
  } & SVGAttributes<SVGGElement> = $props();
</script>

<g
  class="knob"
  role="slider"
  tabindex="0"
  aria-label={label}
  aria-valuemin={low}
  aria-valuemax={high}
  aria-valuenow={now}
  aria-valuetext={says}
  {...rest}
>
  <circle cx={x} cy={y} r="22" fill="transparent" />
  <circle cx={x} cy={y} r="9.5" fill="var(--red)" />
  <circle cx={x} cy={y} r="3" fill="var(--paper)" />
</g>

<style>
  .knob {
    cursor: grab;
    touch-action: none;
  }
  .knob:active {
    cursor: grabbing;
  }
  .knob:focus-visible {
    outline: none;
  }
  .knob:focus-visible circle:nth-child(2) {
    stroke: var(--focus);
    stroke-width: 3;
  }
</style>
