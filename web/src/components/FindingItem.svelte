<script lang="ts">
  import type { Finding } from '../lib/api';
  import { goTo } from '../lib/go';
  import { tell } from '../lib/preferences.svelte';
  import SeverityBar, { LOOK } from './SeverityBar.svelte';
  import TheSum from './TheSum.svelte';
  import Told from './Told.svelte';

  let {
    finding,
    leads = true,
  }: {
    finding: Finding;
    /** False where there is no page yet to lead to. */
    leads?: boolean;
  } = $props();

  const look = $derived(LOOK[finding.severity]);
  let open = $state(false);
</script>

<!-- the buttons it has do the same: keys here only save the way to them -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<li
  class="item"
  tabindex="-1"
  data-finding={finding.id}
  onkeydown={(event) => {
    if (event.target !== event.currentTarget || event.altKey || event.ctrlKey || event.metaKey)
      return;
    if (event.key === 's') open = !open;
    else if (event.key === 'Enter' && finding.action && leads) void goTo(finding.action);
    else return;
    event.preventDefault();
  }}
>
  <span style:color={look.colour} class="text-sm font-semibold">
    <span class="mb-1 block"><SeverityBar severity={finding.severity} /></span>
    {look.word}
  </span>
  <div class="min-w-0">
    <p><Told text={tell(finding.sentence)} /></p>
    <p class="mt-1 flex flex-wrap gap-x-4">
      <button class="quiet text-sm" aria-expanded={open} onclick={() => (open = !open)}>
        {open ? 'hide the sum' : 'show the sum'}
      </button>
      {#if finding.action && leads}
        {@const action = finding.action}
        <button class="quiet text-sm text-ink" onclick={() => goTo(action)}>{action.label}</button>
      {/if}
    </p>
    {#if open}<TheSum {finding} />{/if}
  </div>
</li>

<style>
  .item {
    display: grid;
    grid-template-columns: 3.4rem 1fr;
    column-gap: 0.5rem;
    border-bottom: 1px solid var(--line);
    padding-block: 0.75rem;
  }
</style>
