<script lang="ts">
  import type { Snippet } from 'svelte';
  import { openRig } from '../lib/openrig.svelte';
  import { preferences } from '../lib/preferences.svelte';

  /** A part of the page under its name: it remembers whether it is open, and opens for what is
   * asked for inside it. */
  let {
    name,
    says = '',
    key,
    children,
  }: {
    name: string;
    /** What is in it, in few words, while it is closed. */
    says?: string;
    /** What it is remembered by: the page and the part. */
    key: string;
    children: Snippet;
  } = $props();

  const KEPT = 'lyrandis.fold.';
  let open = $state(kept());
  let body = $state<HTMLElement>();

  function kept(): boolean {
    try {
      const found = localStorage.getItem(KEPT + key);
      return found === null ? preferences.unfolded : found === 'open';
    } catch {
      return preferences.unfolded;
    }
  }

  function toggled(event: Event): void {
    const now = (event.currentTarget as HTMLDetailsElement).open;
    if (now === kept()) return;
    try {
      localStorage.setItem(KEPT + key, now ? 'open' : 'closed');
    } catch {
      // a browser that keeps nothing still works
    }
  }

  // a finding leads to a control in here: it is open before the control is looked for
  $effect.pre(() => {
    const control = openRig.wanted?.control;
    if (control && body?.querySelector(`[data-control="${CSS.escape(control)}"]`)) open = true;
  });
</script>

<details class="fold" bind:open ontoggle={toggled}>
  <summary>
    <span class="name">{name}</span>
    {#if says && !open}<span class="says">{says}</span>{/if}
  </summary>
  <div bind:this={body} class="body">{@render children()}</div>
</details>

<style>
  .fold {
    border-top: 1px solid var(--line);
  }
  .fold:last-of-type {
    border-bottom: 1px solid var(--line);
  }
  summary {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 0.75rem;
    min-height: 2.4rem;
    padding-block: 0.5rem;
    cursor: pointer;
    list-style: none;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  summary::before {
    content: '+';
    width: 0.8rem;
    font-weight: 600;
  }
  [open] > summary::before {
    content: '−';
  }
  .name {
    font-size: 0.93rem;
    font-weight: 600;
  }
  .says {
    color: var(--soft);
    font-size: 0.9rem;
  }
  .body {
    padding-bottom: 1rem;
  }
  /* the summary says its heading already; readers of headings still find it */
  .body > :global(section:only-child > h2:first-child),
  .body > :global(section:only-child > div:first-child > h2:first-child) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .body > :global(section:only-child) {
    margin-top: 0;
  }
  @media (max-width: 767px), (pointer: coarse) {
    summary {
      min-height: 44px;
      align-items: center;
    }
  }
</style>
