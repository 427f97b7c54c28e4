<script lang="ts">
  import type { Trial } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap, gr, lbf, mm, type Figure } from '../../lib/units';
  import type { Knob, Trying } from './trial.svelte';

  let { trying, trial, knob, label }: { trying: Trying; trial: Trial; knob: Knob; label: string } =
    $props();

  const SAYS: Record<Knob, (value: number) => Figure> = {
    shaft_length_mm: mm,
    point_gr: gr,
    draw_weight_lbf: lbf,
    brace_height_mm: mm,
    window_mm: gap,
    string_added_gr: gr,
  };
  function say(value: number): string {
    if (knob !== 'window_mm') return figure(SAYS[knob](value));
    if (Math.abs(value) < 0.05) return 'at centre';
    return `${figure(gap(Math.abs(value)))} ${value > 0 ? 'short' : 'past'}`;
  }
  const range = $derived(trial[knob]);
  const at = $derived(trying.at(knob));
  const said = $derived(say(at));
  const moved = $derived(Math.abs(at - range.now) > range.step / 4);
  const place = $derived(((range.now - range.low) / (range.high - range.low)) * 100);
</script>

<div class="knob">
  <div class="flex items-baseline justify-between gap-3">
    <label class="label" for="try-{knob}">{label}</label>
    <output for="try-{knob}" class="value" class:moved>{said}</output>
  </div>
  <input
    id="try-{knob}"
    type="range"
    class="range"
    min={range.low}
    max={range.high}
    step={range.step}
    value={at}
    aria-valuetext={said}
    oninput={(event) => trying.set(knob, event.currentTarget.valueAsNumber)}
  />
  <span class="now" style:left="calc({place}% * 0.96 + 2%)" aria-hidden="true"></span>
  <div class="text-sm text-soft">
    {#if moved}now {say(range.now)}{:else}as it is{/if}
  </div>
</div>

<style>
  .knob {
    position: relative;
    min-width: 0;
  }
  .value {
    white-space: nowrap;
    font-weight: 600;
    font-size: 1.1rem;
  }
  .moved {
    color: var(--red);
  }
  .now {
    position: absolute;
    top: 3.1rem;
    width: 1px;
    height: 7px;
    background: var(--soft);
  }
</style>
