<script lang="ts">
  import Strip from '../../components/Strip.svelte';
  import KneeChart from '../../drawings/KneeChart.svelte';
  import { Knee } from '../../drawings/knee.svelte';
  import type { Value } from '../../lib/api';
  import type { components } from '../../lib/api.gen';
  import { figure } from '../../lib/preferences.svelte';
  import { gpp, gr, joules, mps, percent, type Figure } from '../../lib/units';

  let { drawing }: { drawing: components['schemas']['KneeDrawing'] } = $props();

  const knee = new Knee(() => drawing);
  const value = (key: string, label: string, said: Figure): Value => ({
    key,
    label,
    figure: said,
    entries: [],
  });
  const values = $derived([
    value('gpp', 'arrow over weight', gpp(knee.mass / drawing.weight_lbf)),
    value('share', 'of the energy to the arrow', percent(knee.here.share)),
    value('speed', 'leaves at', mps(knee.here.speed_mps, knee.here.speed_plus_minus_mps)),
    value('left', 'left in bow, string and hand', joules(knee.here.left_j)),
  ]);
  const own = $derived(drawing.arrow_gr != null && Math.abs(knee.mass - drawing.arrow_gr) < 0.5);
  const short = $derived(knee.floor - knee.mass);
</script>

<KneeChart {knee} />
<div class="mt-2 flex flex-wrap items-center gap-x-4 text-sm" aria-live="polite">
  <span class="text-soft">
    {own ? 'Your arrow.' : 'Nothing is recorded by trying a mass.'}
    Stored at your draw: {figure(joules(drawing.stored_j))}.
  </span>
  {#if short > 0}
    <span class="text-red">
      {figure(gr(short))} under the {drawing.bowyer_gr != null ? "bowyer's minimum" : 'floor'}:
      speed hardly rises, shock does.
    </span>
  {/if}
  {#if knee.tried}
    <button class="quiet" onclick={knee.release}>
      Back to {drawing.arrow_gr != null ? 'your arrow' : 'the start'}
    </button>
  {/if}
</div>
<div class="mt-2"><Strip {values} /></div>
