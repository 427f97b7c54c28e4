<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import Findings from '../../components/Findings.svelte';
  import FittedNow from '../../components/FittedNow.svelte';
  import HeaderTools from '../../components/HeaderTools.svelte';
  import NextStepCard from '../../components/NextStepCard.svelte';
  import JotLine from '../../components/JotLine.svelte';
  import Rail from '../../components/Rail.svelte';
  import RigSwitcher from '../../components/RigSwitcher.svelte';
  import Wordmark from '../../components/Wordmark.svelte';
  import { bench } from '../../lib/bench.svelte';
  import { keys } from '../../lib/keys.svelte';
  import { stageOf } from '../../lib/paths';
  import { route } from '../../router';

  let { children }: { children: Snippet } = $props();

  const rig = $derived(decodeURIComponent(route.pathname.split('/')[2] ?? ''));
  const place = $derived(route.pathname.split('/')[3] ?? 'archer');
  const stage = $derived(stageOf(route.pathname));
  const assessment = $derived(bench.assessment);

  $effect(() => {
    const opened = rig;
    const at = stage;
    if (opened) untrack(() => void bench.open(opened, at));
  });
  $effect(() => {
    const page = `${place[0]?.toUpperCase()}${place.slice(1)}`;
    document.title = assessment?.name ? `${page} · ${assessment.name} · Lyrandis` : 'Lyrandis';
  });
  $effect(() => {
    if (bench.status !== 'offline') return;
    const timer = setInterval(() => void bench.open(rig), 3000);
    return () => clearInterval(timer);
  });
</script>

<svelte:window onkeydown={keys.handle} onfocus={() => rig && void bench.open(rig)} />

<div class="frame">
  <header class="flex items-center gap-3 border-b border-line px-5 py-1.5 max-md:px-3">
    <Wordmark />
    <RigSwitcher {assessment} />
    <HeaderTools />
  </header>
  {#if bench.status === 'missing'}
    <main class="col-span-full p-8">
      <h1>No such rig</h1>
      <p class="mt-2">There is no rig at this address. It may have been made on another machine.</p>
      <p class="mt-4"><a class="act" href="/">All rigs</a></p>
    </main>
  {:else if !assessment}
    <main class="col-span-full p-8 text-soft" aria-busy="true">
      {#if bench.status === 'offline'}
        <h1 class="text-ink">Lyrandis does not answer</h1>
        <p class="mt-2">See that it is still running. This page tries again by itself.</p>
      {:else}
        <p>Laying out the bench…</p>
      {/if}
    </main>
  {:else}
    <div class="rail-area"><Rail {assessment} /></div>
    <div class="md:hidden"><NextStepCard step={assessment.next_step} brief /></div>
    <main class="stage-area">
      {#if bench.status === 'offline'}
        <p class="mb-3 text-red" role="alert">
          Lyrandis does not answer. What is shown may be old; what you typed is kept.
        </p>
      {/if}
      {@render children()}
    </main>
    <div class="findings-area">
      <Findings {assessment} />
      <div class="pb-4 md:hidden"><FittedNow {assessment} /></div>
    </div>
    <div class="jot-area"><JotLine {stage} /></div>
  {/if}
</div>

<style>
  .frame {
    display: grid;
    grid-template-columns: 220px minmax(0, 1fr) 300px;
    grid-template-rows: auto minmax(0, 1fr) auto;
    height: 100dvh;
  }
  .frame > header {
    grid-column: 1 / -1;
  }
  .rail-area {
    border-right: 1px solid var(--line);
    overflow-y: auto;
  }
  .stage-area {
    overflow-y: auto;
    padding: 0.9rem 1.25rem 1.25rem;
  }
  .findings-area {
    border-left: 1px solid var(--line);
    overflow-y: auto;
  }
  .jot-area {
    grid-column: 1 / -1;
  }
  @media (min-width: 1600px) {
    .frame {
      grid-template-columns: 260px minmax(0, 1fr) 380px;
    }
    .stage-area {
      padding-inline: max(2rem, calc((100% - 1080px) / 2));
    }
  }
  @media (max-width: 1023px) {
    .frame {
      grid-template-columns: 190px minmax(0, 1fr);
      grid-template-rows: auto auto minmax(0, 1fr) auto;
      height: auto;
      min-height: 100dvh;
    }
    .rail-area {
      grid-row: 2 / 4;
    }
    .findings-area {
      grid-column: 2;
      border-left: 0;
      border-top: 1px solid var(--line);
    }
    .jot-area {
      position: sticky;
      bottom: 0;
      z-index: 20;
    }
  }
  @media (max-width: 767px) {
    .frame {
      display: flex;
      flex-direction: column;
    }
    .rail-area {
      border-right: 0;
      border-bottom: 1px solid var(--line);
      overflow-x: auto;
      overflow-y: hidden;
      flex: none;
    }
    .stage-area {
      padding: 0.75rem;
      overflow: visible;
    }
    .jot-area {
      margin-top: auto;
    }
  }
</style>
