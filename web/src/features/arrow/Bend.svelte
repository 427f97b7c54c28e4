<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import { untrack, type Snippet } from 'svelte';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import BendDrawing from '../../drawings/bend/BendDrawing.svelte';
  import BendPanel from '../../drawings/bend/BendPanel.svelte';
  import NockSide from '../../drawings/bend/NockSide.svelte';
  import { BendView, tellingFrame } from '../../drawings/bend/view.svelte';
  import type { ShotDrawing } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { figure, preferences } from '../../lib/preferences.svelte';
  import { gap, millis } from '../../lib/units';
  import { wanted } from '../../lib/wanted';
  import BendStills from './BendStills.svelte';

  let { drawing, numbers }: { drawing: ShotDrawing; numbers: Snippet } = $props();

  const view = new BendView(() => drawing);
  view.frame = untrack(() => tellingFrame(drawing));

  $effect(() => view.stop);

  const fletching = $derived.by(() => {
    const room = view.arrow?.fletching_gap_mm ?? 0;
    if (Math.abs(room) < 0.05) return 'The shaft touches the plate as the fletching passes';
    return room < 0
      ? `The shaft presses ${figure(gap(-room))} into the plate as the fletching passes`
      : `${figure(gap(room))} between shaft and plate as the fletching passes`;
  });
</script>

<div {@attach wanted('bend')} tabindex="-1">
  <BendDrawing {view} />
  <div class="controls">
    {#if !preferences.still}
      <button class="act" onclick={view.play}>
        {#if view.playing}<Pause size={17} aria-hidden="true" />Pause{:else}<Play
            size={17}
            aria-hidden="true"
          />Play slowly{/if}
      </button>
    {/if}
    <input
      type="range"
      class="range"
      min="0"
      max={view.last}
      step="1"
      value={view.frame}
      aria-label="Instant of the shot"
      aria-valuetext={figure(millis(view.time))}
      oninput={(event) => view.scrub(event.currentTarget.valueAsNumber)}
    />
    <span class="text-sm text-soft">
      release to clear of the bow, {figure(millis(drawing.times_ms[drawing.pass_frame] ?? 0))}
    </span>
  </div>
  {#if preferences.still}<BendStills {drawing} {view} />{/if}
  {@render numbers()}
  <div class="mt-3">
    <Fold name="Beside others" key="arrow.beside" says="yours, matched, too weak, too stiff">
      <div class="panels" role="group" aria-label="Arrow shown">
        {#each drawing.arrows as arrow (arrow.which)}
          <BendPanel
            {drawing}
            {arrow}
            frame={view.frame}
            pressed={view.arrow === arrow}
            onchoose={() => (view.chosen = arrow.which)}
          />
        {/each}
      </div>
      <div class="below">
        <NockSide {drawing} frame={view.frame} />
        <p class="text-sm text-soft">
          {fletching}, the vanes themselves not counted.
          {#if drawing.assumed.length}
            Assumed: {drawing.assumed.join(', ')}.
            <a class="underline" href="/rigs/{encodeURIComponent(openRig.rig ?? '')}/arrow/build"
              >Enter what you know</a
            >
          {/if}
        </p>
      </div>
    </Fold>
  </div>
</div>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 0.9rem;
    margin: 0.5rem 0 0.8rem;
  }
  .controls input {
    flex: 1 1 12rem;
    min-width: 0;
  }
  .panels {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
    gap: 0.6rem;
    margin-top: 0.8rem;
  }
  .below {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
    align-items: end;
    gap: 0.5rem 1.5rem;
    margin-top: 0.8rem;
  }
</style>
