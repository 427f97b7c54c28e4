<script lang="ts">
  import Fold from '../../components/Fold.svelte';
  import Cautions from '../../components/Cautions.svelte';
  import StageHead from '../../components/StageHead.svelte';
  import Strip from '../../components/Strip.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import DrawDrawing from '../../drawings/DrawDrawing.svelte';
  import type { Stage } from '../../lib/api';
  import { valueOf } from '../../lib/values';
  import DrawForm from './DrawForm.svelte';
  import DrawReadings from './DrawReadings.svelte';
  import Habits from './Habits.svelte';

  /** Hold, anchor and purpose in few words; what lacks is said to. */
  function habits(stage: Stage): string {
    const told = ['hold', 'anchor', 'hand', 'purpose'].map((key) => valueOf(stage, key));
    const words = told.map((value) => value?.text).filter(Boolean);
    const lacks = told.length - words.length;
    return [...words, lacks ? `${lacks} not told` : null].filter(Boolean).join(', ');
  }

  function about(stage: Stage): string {
    const hand = valueOf(stage, 'hand')?.choice;
    const hold = valueOf(stage, 'hold')?.text;
    const said = [hand ? `${hand}-handed` : null, hold].filter(Boolean).join(', ');
    return said
      ? `${said[0]?.toUpperCase()}${said.slice(1)}. The string at full draw, to scale.`
      : 'The string at full draw, to scale.';
  }
</script>

<WhenReady key="archer">
  {#snippet children(assessment, stage, page)}
    <StageHead {stage} about={about(stage)} />
    <DrawDrawing drawing={page.draw} leftHanded={valueOf(stage, 'hand')?.choice === 'left'} />
    <div class="mt-2">
      <Strip
        values={['draw_length', 'hook_depth', 'draw_at_hook'].map((key) => valueOf(stage, key))}
      />
    </div>

    <div class="mt-5 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="add-draw">
        <h2 id="add-draw">Add a draw reading</h2>
        <DrawForm />
      </section>
      <section aria-labelledby="draw-readings">
        <h2 id="draw-readings">Readings</h2>
        <DrawReadings drawing={page.draw} />
      </section>
    </div>

    <div class="mt-5">
      <Fold name="How you shoot" key="archer.habits" says={habits(stage)}>
        <Habits {assessment} {stage} />
      </Fold>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
