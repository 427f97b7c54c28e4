<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import StagePages from '../../components/StagePages.svelte';
  import type { Stage } from '../../lib/api';
  import { aboutBow } from './about';

  let { stage }: { stage: Stage } = $props();

  const PAGES = [
    ['', 'Bench'],
    ['choose', 'Choose'],
    ['energy', 'Energy'],
    ['condition', 'Condition'],
  ] as const;
</script>

<StageHead {stage} about={aboutBow(stage)} />
<StagePages stage="bow" label="The bow's pages" pages={PAGES} />
