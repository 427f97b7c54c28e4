<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { arrow } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { Assessment, Stage } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { valueOf } from '../../lib/values';

  let { assessment, stage }: { assessment: Assessment; stage: Stage } = $props();

  const material = $derived(valueOf(stage, 'material')?.choice ?? 'wood');
  const pages = $derived(
    arrow.pages.filter(([page]) => page !== 'taper' || material === 'wood' || material === 'cane'),
  );

  const set = $derived(assessment.fitted.find((part) => part.part === 'arrow_set')?.name);
  const about = $derived.by(() => {
    if (!set) return 'No arrows fitted yet.';
    const length = valueOf(stage, 'shaft_length_mm')?.figure;
    const point = valueOf(stage, 'point_gr')?.figure;
    return [set, length ? figure(length) : null, point ? `${figure(point)} point` : null]
      .filter(Boolean)
      .join(', ');
  });
</script>

<StageHead {stage} {about} />
<StagePages stage="arrow" label="The arrow's pages" {pages} />
