<script lang="ts">
  import type { Assessment, StageKey } from '../lib/api';
  import { byStage, bySeverity, placed } from '../lib/findings';
  import { preferences } from '../lib/preferences.svelte';
  import FindingItem from './FindingItem.svelte';
  import FindingLine from './FindingLine.svelte';
  import NextStepCard from './NextStepCard.svelte';
  import StopNotice from './StopNotice.svelte';

  let {
    assessment,
    waits,
    stage,
  }: {
    assessment: Assessment;
    waits: boolean;
    /** The stage whose page is open; null on a page of the whole rig. */
    stage: StageKey | null;
  } = $props();

  const stepped = $derived(waits ? null : (assessment.next_step.finding ?? null));
  const here = $derived(placed(assessment, stage, stepped));
  const heading = $derived(here.first || stage === null ? 'Worth knowing' : 'On this page');
  let all = $state(preferences.unfolded);
  let others = $state(preferences.unfolded);
  let list: HTMLElement;

  /** Up and down walk the findings; `e` opens what belongs to other pages. */
  function walk(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    if (target.matches('input, textarea, select') || event.ctrlKey || event.metaKey) return;
    if (event.key === 'e') {
      if (here.elsewhere.length) others = !others;
      else all = !all;
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const items = [...list.querySelectorAll<HTMLElement>('[data-finding]')];
      const at = items.findIndex((item) => item.contains(document.activeElement));
      const next = items[Math.max(0, at + (event.key === 'ArrowDown' ? 1 : -1))];
      if (!next) return;
      next.focus();
    } else return;
    event.preventDefault();
  }
</script>

<aside aria-label="Next step and findings" class="flex flex-col gap-4 p-4">
  {#key assessment.rig}<NextStepCard step={assessment.next_step} {assessment} {waits} />{/key}
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <section aria-labelledby="findings-title" bind:this={list} onkeydown={walk}>
    {#if here.stops.length}
      <ul aria-label="Dangers">
        {#each here.stops as finding (finding.id)}<StopNotice {finding} {stage} />{/each}
      </ul>
    {/if}
    <h2 id="findings-title" tabindex="-1" class="border-b border-line pb-2">{heading}</h2>
    {#if here.open.length}
      <ul>
        {#each here.open as finding (finding.id)}<FindingItem {finding} />{/each}
      </ul>
    {:else if !assessment.findings.length}
      <p class="mt-2 text-soft">Nothing to judge yet. The next step says where to begin.</p>
    {:else if !here.first}
      <p class="mt-2 text-soft">Nothing to judge here yet.</p>
    {/if}
    {#if here.more.length}
      <button class="fold" aria-expanded={all} onclick={() => (all = !all)}>
        <strong>{all ? '−' : '+'} {here.more.length} more</strong>
        {here.first ? 'wait until these stand' : stage === null ? byStage(here.more) : 'here'}
      </button>
      {#if all}
        <ul>
          {#each here.more as finding (finding.id)}
            <FindingLine {finding} where={here.first || stage === null} />
          {/each}
        </ul>
      {/if}
    {/if}
    {#if here.elsewhere.length}
      <button class="fold" aria-expanded={others} onclick={() => (others = !others)}>
        <strong>{others ? '−' : '+'} {here.elsewhere.length} elsewhere:</strong>
        {byStage(here.elsewhere)} ({bySeverity(here.elsewhere)})
      </button>
      {#if others}
        <ul>
          {#each here.elsewhere as finding (finding.id)}<FindingLine {finding} where />{/each}
        </ul>
      {/if}
    {/if}
  </section>
</aside>

<style>
  .fold {
    display: block;
    width: 100%;
    min-height: 2.4rem;
    padding-block: 0.55rem;
    border-bottom: 1px solid var(--line);
    color: var(--soft);
    font-size: 0.93rem;
    text-align: left;
  }
  .fold:hover {
    color: var(--ink);
  }
  .fold strong {
    color: var(--ink);
  }
</style>
