<script lang="ts">
  import type { Finding, StageKey } from '../lib/api';
  import { goTo } from '../lib/go';
  import { nameOf } from '../lib/findings';
  import TheSum from './TheSum.svelte';

  /** A danger: its sentence stands over the page, here stand its name, its sum and the way to it. */
  let { finding, stage }: { finding: Finding; stage: StageKey | null } = $props();

  let toggled = $state<boolean | null>(null);
  const elsewhere = $derived(finding.stage !== stage);
  const open = $derived(toggled ?? !elsewhere);
</script>

<li class="stop" data-finding={finding.id} tabindex="-1">
  <p>
    <strong class="text-red">Stop{elsewhere ? `, on ${nameOf(finding.stage)}` : ''}:</strong>
    {finding.title}.
  </p>
  <p class="mt-1 flex flex-wrap gap-x-4">
    <button class="quiet text-sm" aria-expanded={open} onclick={() => (toggled = !open)}>
      {open ? 'hide the sum' : 'show the sum'}
    </button>
    {#if finding.action}
      {@const action = finding.action}
      <button class="quiet text-sm text-ink" onclick={() => goTo(action)}>{action.label}</button>
    {/if}
  </p>
  {#if open}<TheSum {finding} />{/if}
</li>

<style>
  .stop {
    border-left: 5px solid var(--red);
    background: color-mix(in srgb, var(--red) 9%, var(--paper));
    padding: 0.5rem 0.75rem;
    margin-bottom: 0.5rem;
  }
</style>
