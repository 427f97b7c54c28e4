<script lang="ts">
  import type { Assessment } from '../lib/api';
  import FindingItem from './FindingItem.svelte';
  import NextStepCard from './NextStepCard.svelte';

  let { assessment }: { assessment: Assessment } = $props();
</script>

<aside aria-label="Next step and findings" class="flex flex-col gap-5 p-4">
  <NextStepCard step={assessment.next_step} />
  <section aria-labelledby="findings-title">
    <h2 id="findings-title" tabindex="-1" class="border-b border-line pb-2">Findings</h2>
    {#if assessment.findings.length}
      <ul>
        {#each assessment.findings as finding (finding.id)}
          <FindingItem
            {finding}
            asked={finding.id === assessment.next_step.finding}
            said={finding.severity === 'stop' || finding.id === assessment.next_step.finding}
          />
        {/each}
      </ul>
    {:else}
      <p class="mt-2 text-soft">Nothing to judge yet. The next step says where to begin.</p>
    {/if}
  </section>
</aside>
