<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { nock } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { PageOf, Stage } from '../../lib/api';

  let { stage, page }: { stage: Stage; page: PageOf<'nock'> } = $props();

  const pages = $derived(
    page.tiller.kit === 'plain' ? ([nock.pages[0], ['tiller', 'Tiller']] as const) : nock.pages,
  );
  const ABOUT = {
    plain: 'On this bow only the string and the nock are set.',
    rest: 'Rest or plunger, string and nock are set.',
    full: 'Bolts, rest, plunger, string and nock are set.',
  };
</script>

<StageHead {stage} about={ABOUT[page.tiller.kit]} />
<StagePages stage="nock" label="The nock's pages" {pages} />
