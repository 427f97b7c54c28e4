<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import type { Stage } from '../../lib/api';
  import { aboutBow } from './about';
  import BowPages from './BowPages.svelte';

  let { stage }: { stage: Stage } = $props();
</script>

<StageHead {stage} about={aboutBow(stage)} />
<BowPages />
