<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import StageHead from '../../components/StageHead.svelte';
  import Strip from '../../components/Strip.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import DrawDrawing from '../../drawings/DrawDrawing.svelte';
  import type { Stage } from '../../lib/api';
  import { ANCHORS, HANDS, HOLDS, PURPOSES } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { draftOn, valueOf } from '../../lib/values';
  import DrawForm from './DrawForm.svelte';
  import DrawReadings from './DrawReadings.svelte';

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
  {#snippet children(assessment, stage)}
    <StageHead {stage} about={about(stage)} />
    <DrawDrawing
      drawing={assessment.drawings.draw}
      leftHanded={valueOf(stage, 'hand')?.choice === 'left'}
    />
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
        <DrawReadings drawing={assessment.drawings.draw} />
      </section>
    </div>

    <section aria-labelledby="habits" class="mt-6">
      <h2 id="habits">How you shoot</h2>
      <div class="mt-1 grid grid-cols-2 gap-3 lg:grid-cols-3">
        <ChoiceField
          control="hold"
          label="Hold"
          choice={valueOf(stage, 'hold')?.choice ?? null}
          options={HOLDS}
          draft={(hold) => draftOn(assessment, 'archer', { kind: 'hold_chosen', hold } as never)}
        />
        <ChoiceField
          control="anchor"
          label="Anchor"
          choice={valueOf(stage, 'anchor')?.choice ?? null}
          options={ANCHORS}
          draft={(anchor) =>
            draftOn(assessment, 'archer', { kind: 'anchor_chosen', anchor } as never)}
        />
        <ChoiceField
          control="hand"
          label="Drawing hand"
          choice={valueOf(stage, 'hand')?.choice ?? null}
          options={HANDS}
          draft={(hand) => draftOn(assessment, 'archer', { kind: 'hand_chosen', hand } as never)}
        />
        <ChoiceField
          control="purpose"
          label="Purpose"
          choice={valueOf(stage, 'purpose')?.choice ?? null}
          options={PURPOSES}
          draft={(purpose) =>
            draftOn(assessment, 'archer', { kind: 'purpose_chosen', purpose } as never)}
        />
        <ReadingField
          control="hook"
          label="Hook depth, nock groove to string"
          word="hook"
          shown={valueOf(stage, 'hook_depth')?.figure
            ? figure(valueOf(stage, 'hook_depth')!.figure!)
            : null}
          example="1/2"
        />
        <ReadingField
          control="grip"
          label="Pivot to back of the bow"
          word="grip"
          tail="back"
          shown={null}
          example="1 3/4"
        />
      </div>
    </section>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
