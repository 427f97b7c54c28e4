<script lang="ts">
  import type { Assessment } from '../lib/api';
  import FindingItem from './FindingItem.svelte';
  import NextStepCard from './NextStepCard.svelte';

  let { assessment, waits }: { assessment: Assessment; waits: boolean } = $props();

  const stepped = $derived(waits ? null : assessment.next_step.finding);
</script>

<aside aria-label="Next step and findings" class="flex flex-col gap-5 p-4">
  {#key assessment.rig}<NextStepCard step={assessment.next_step} {waits} />{/key}
  <section aria-labelledby="findings-title">
    <h2 id="findings-title" tabindex="-1" class="border-b border-line pb-2">Findings</h2>
    {#if assessment.findings.length}
      <ul>
        {#each assessment.findings as finding (finding.id)}
          <FindingItem
            {finding}
            asked={finding.id === stepped}
            said={finding.severity === 'stop' || finding.id === stepped}
          />
        {/each}
      </ul>
    {:else}
      <p class="mt-2 text-soft">Nothing to judge yet. The next step says where to begin.</p>
    {/if}
  </section>
</aside>
