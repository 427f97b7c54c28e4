<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { listen } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { PageOf, Stage } from '../../lib/api';
  import { sayDay } from '../../lib/days';

  let { stage, page }: { stage: Stage; page: PageOf<'listen'> } = $props();

  const about = $derived.by(() => {
    const last = page.recordings.at(-1);
    if (!last) return 'A phone beside the bow is enough. Nothing leaves this machine.';
    const simulated = last.source === 'simulated' ? ', simulated' : '';
    return `Last heard ${sayDay(last.at)}: ${last.what}${simulated}. Levels hold within one session only.`;
  });
</script>

<StageHead {stage} {about} />
<StagePages stage="listen" label="The pages of Listen" pages={listen.pages} />
