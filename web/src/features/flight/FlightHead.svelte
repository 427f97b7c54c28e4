<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { flight } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { PageOf, Stage } from '../../lib/api';
  import { route } from '../../lib/navigation';
  import { tell } from '../../lib/preferences.svelte';

  let {
    stage,
    page,
    about,
    said: told = false,
  }: {
    stage: Stage;
    page: PageOf<'flight'>;
    about?: string;
    /** True where the page says itself that the readings contradict each other. */
    said?: boolean;
  } = $props();

  /** Where it is put down what was seen, nothing says what it means. */
  const neutral = $derived(route.pathname.endsWith('/record'));
  const side = $derived(page.outward_is_left ? 'left' : 'right');
  const words = $derived.by(() => {
    if (page.trial_says) return `A trial is on: ${tell(page.trial_says)}.`;
    return about ?? `Seen from behind: on this rig a weak shaft's tail points ${side}.`;
  });
</script>

<StageHead
  stage={told ? { ...stage, moved: null } : stage}
  about={words}
  brief={about !== undefined}
  own={told || neutral}
/>
<StagePages stage="flight" label="The flight's pages" pages={flight.pages} />
