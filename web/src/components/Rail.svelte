<script lang="ts">
  import type { Assessment } from '../lib/api';
  import { tell } from '../lib/preferences.svelte';
  import { nowPath, orderPath, placePath } from '../lib/paths';
  import { headline } from '../lib/values';
  import { route } from '../lib/navigation';
  import FittedNow from './FittedNow.svelte';
  import RailMark from './RailMark.svelte';
  import ValueText from './ValueText.svelte';

  let { assessment }: { assessment: Assessment } = $props();

  const rig = $derived(assessment.rig ?? '');
  const here = $derived(route.pathname.split('/')[3] || 'now');
  let rail: HTMLElement;

  // on a phone the stages stand in a strip: the one that is open comes into view
  $effect(() => {
    const open = here && rail.querySelector('ol [aria-current=page]');
    const strip = rail.parentElement;
    if (!open || !strip || strip.scrollWidth <= strip.clientWidth) return;
    const [tab, seen] = [open.getBoundingClientRect(), strip.getBoundingClientRect()];
    strip.scrollLeft += tab.left + tab.width / 2 - seen.left - seen.width / 2;
  });
</script>

<nav aria-label="Order of work" class="rail" bind:this={rail}>
  <h2 class="max-md:hidden">
    <a
      href={orderPath(rig)}
      class="order"
      aria-current={here === 'order' ? 'page' : undefined}
      title="The whole order, and what rests on what">Order of work</a
    >
  </h2>
  <ol class="flex md:flex-col">
    <li class="shrink-0">
      <a
        href={nowPath(rig)}
        class="step now"
        aria-current={here === 'now' ? 'page' : undefined}
        title="What is known now, and what would make it surer (0)"
      >
        <span class="font-semibold">Now</span>
      </a>
    </li>
    <li class="shrink-0 md:hidden">
      <a
        href={orderPath(rig)}
        class="step"
        aria-current={here === 'order' ? 'page' : undefined}
        title="The whole order, and what rests on what"
      >
        <span>Order <span class="block">of work</span></span>
      </a>
    </li>
    {#each assessment.stages as stage (stage.key)}
      <li class="shrink-0 max-md:flex-1">
        <a
          href={placePath(rig, stage.key)}
          class="step"
          aria-current={here === stage.key ? 'page' : undefined}
          title={stage.moved ? tell(stage.moved) : undefined}
        >
          <span class="w-4 text-sm text-soft max-md:hidden">{stage.number}</span>
          <span class="min-w-0 flex-1">
            <span class="block text-sm text-soft">{stage.name}</span>
            <span class="said">
              <span class="font-semibold max-md:whitespace-nowrap md:text-[1.05rem]">
                <ValueText value={headline(stage)} plain />
              </span>
              {#if stage.reason}
                <span class="more text-amber">{tell(stage.reason)}</span>
              {:else if stage.detail}
                <span class="more text-soft">{tell(stage.detail)}</span>
              {/if}
            </span>
            {#if stage.moved}<span class="sr-only">{tell(stage.moved)}</span>{/if}
          </span>
          <RailMark mark={stage.mark} stop={stage.stop} />
        </a>
      </li>
    {/each}
    <li class="shrink-0">
      <a
        href={placePath(rig, 'logbook')}
        class="step"
        aria-current={here === 'logbook' ? 'page' : undefined}
      >
        <span class="w-4 text-sm text-soft max-md:hidden">{assessment.stages.length + 1}</span>
        <span class="min-w-0 flex-1">
          <span class="block text-sm text-soft">Logbook</span>
          <span class="block font-semibold whitespace-nowrap md:text-[1.05rem]">
            {assessment.entry_count}
            {assessment.entry_count === 1 ? 'entry' : 'entries'}
          </span>
        </span>
      </a>
    </li>
  </ol>
  <div class="max-md:hidden"><FittedNow {assessment} /></div>
</nav>

<style>
  .step {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.4rem 1.1rem 0.4rem 1.1rem;
    border-left: 3px solid transparent;
    color: var(--ink);
    text-decoration: none;
  }
  .now {
    min-height: 2.2rem;
  }
  .order {
    display: block;
    padding: 0.8rem 1.25rem 0.5rem 1.1rem;
    border-left: 3px solid transparent;
    text-decoration: underline dotted var(--line);
    text-underline-offset: 4px;
  }
  .order:hover,
  .order[aria-current='page'] {
    color: var(--ink);
  }
  .order[aria-current='page'] {
    background: var(--raised);
    border-left-color: var(--ink);
    text-decoration: none;
  }
  /* what is short stands behind the value, what is long under it */
  .said {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 0.5rem;
  }
  .more {
    font-size: 0.87rem;
    white-space: nowrap;
  }
  .step:hover {
    background: var(--faint);
  }
  .step[aria-current='page'] {
    background: var(--raised);
    border-left-color: var(--ink);
  }
  @media (max-width: 767px) {
    .step {
      gap: 0.4rem;
      padding: 0.5rem 0.6rem;
      height: 100%;
      border-left: 0;
      border-bottom: 3px solid transparent;
      font-size: 0.9rem;
    }
    .step[aria-current='page'] {
      border-bottom-color: var(--ink);
    }
    .more {
      display: none;
    }
  }
</style>
