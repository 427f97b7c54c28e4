<script lang="ts">
  import type { Finding } from '../lib/api';
  import { nameOf } from '../lib/findings';
  import { preferences, tell } from '../lib/preferences.svelte';
  import FindingItem from './FindingItem.svelte';
  import SeverityBar, { LOOK } from './SeverityBar.svelte';

  let { finding, where = false }: { finding: Finding; where?: boolean } = $props();

  let open = $state(preferences.unfolded);
</script>

{#if open}
  <FindingItem {finding} />
{:else}
  <li>
    <button
      class="line"
      aria-expanded="false"
      data-finding={finding.id}
      onclick={() => (open = true)}
    >
      <span class="shrink-0">
        <SeverityBar severity={finding.severity} />
        <span class="sr-only">{LOOK[finding.severity].word}:</span>
      </span>
      <span class="said">{tell(finding.sentence)}</span>
      {#if where}<span class="shrink-0 text-soft">{nameOf(finding.stage)}</span>{/if}
    </button>
  </li>
{/if}

<style>
  .line {
    display: grid;
    grid-template-columns: 3.4rem 1fr auto;
    column-gap: 0.5rem;
    align-items: center;
    width: 100%;
    min-height: 2.2rem;
    padding-block: 0.3rem;
    border-bottom: 1px solid var(--faint);
    font-size: 0.9rem;
    text-align: left;
  }
  .line:hover {
    background: var(--faint);
  }
  .said {
    display: -webkit-box;
    overflow: hidden;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
  }
</style>
