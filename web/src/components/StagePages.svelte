<script lang="ts">
  import { openRig } from '../lib/openrig.svelte';
  import { route } from '../lib/navigation';

  let {
    stage,
    label,
    pages,
  }: {
    stage: string;
    label: string;
    /** Last part of the path, the word for it, and a shorter one for a phone. */
    pages: readonly (readonly [string, string, string?])[];
  } = $props();

  const here = $derived(route.pathname.split('/')[4] || pages[0]?.[0]);
  const path = (page: string) => `/rigs/${encodeURIComponent(openRig.rig ?? '')}/${stage}/${page}`;
</script>

<nav aria-label={label} class="pages">
  {#each pages as [page, words, short] (page)}
    <a href={path(page)} aria-current={here === page ? 'page' : undefined}>
      {#if short}<span class="max-md:hidden">{words}</span><span class="md:hidden">{short}</span
        >{:else}{words}{/if}
    </a>
  {/each}
</nav>

<style>
  .pages {
    display: flex;
    gap: 1.4rem;
    border-bottom: 1px solid var(--line);
    margin-bottom: 0.6rem;
    overflow-x: auto;
    overflow-y: hidden;
  }
  @media (max-width: 767px) {
    .pages {
      gap: 0.55rem;
      justify-content: space-between;
    }
  }
  a {
    padding: 0.35rem 0;
    color: var(--soft);
    white-space: nowrap;
    border-bottom: 2px solid transparent;
    margin-bottom: -1px;
  }
  a:hover {
    color: var(--ink);
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 600;
    border-bottom-color: var(--ink);
  }
</style>
