<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { crawls } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { PageOf, Stage } from '../../lib/api';

  let { stage, page }: { stage: Stage; page: PageOf<'crawls'> } = $props();

  const count = $derived(page.marks.filter((mark) => mark.counts).length);
  const about = $derived.by(() => {
    const marks =
      count === 0
        ? 'No crawl shot yet: the table is from the rig alone'
        : count === 1
          ? '1 crawl counts'
          : `${count} crawls count`;
    const others = page.elsewhere ? `; ${page.elsewhere} more with other parts` : '';
    const odd = page.marks.some((mark) => mark.odd) ? ', one does not fit' : '';
    return `${page.held} ${marks}${odd}${others}.`;
  });
</script>

<StageHead {stage} {about} />
<StagePages stage="crawls" label="The crawls' pages" pages={crawls.pages} />
