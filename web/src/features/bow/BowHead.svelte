<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { bow } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { Stage } from '../../lib/api';
  import { aboutBow } from './about';

  let { stage }: { stage: Stage } = $props();
</script>

<StageHead {stage} about={aboutBow(stage)} />
<StagePages stage="bow" label="The bow's pages" pages={bow.pages} />
