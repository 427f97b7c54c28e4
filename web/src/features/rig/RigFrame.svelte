<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import ClockNote from '../../components/ClockNote.svelte';
  import Findings from '../../components/Findings.svelte';
  import FittedNow from '../../components/FittedNow.svelte';
  import HeaderTools from '../../components/HeaderTools.svelte';
  import NextStepCard from '../../components/NextStepCard.svelte';
  import MayShoot from '../../components/MayShoot.svelte';
  import JotLine from '../../components/JotLine.svelte';
  import Rail from '../../components/Rail.svelte';
  import RigSwitcher from '../../components/RigSwitcher.svelte';
  import TermPopover from '../../components/TermPopover.svelte';
  import Wordmark from '../../components/Wordmark.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { clock } from '../../lib/clock.svelte';
  import { build } from '../../lib/build.svelte';
  import { keys } from '../../lib/keys.svelte';
  import { poll } from '../../lib/poll';
  import { ownAddress, rigOf, stageOf, titleOf } from '../../lib/paths';
  import { nameItself, route } from '../../lib/navigation';
  import { lookAt } from '../../lib/wanted';

  let { children }: { children: Snippet } = $props();

  const rig = $derived(rigOf(route.pathname) ?? '');
  const place = $derived(route.pathname.split('/')[3] || 'now');
  const stage = $derived(stageOf(route.pathname));
  const assessment = $derived(openRig.assessment);

  $effect(() => {
    const opened = rig;
    const at = stage;
    if (opened) untrack(() => void openRig.open(opened, at));
    if (opened) untrack(() => void clock.look());
  });
  $effect(() => {
    const own = ownAddress(route.pathname);
    if (own) void nameItself(own);
    const page = titleOf(route.pathname).join(' · ');
    document.title = assessment?.name ? `${page} · ${assessment.name} · Lyrandis` : 'Lyrandis';
  });
  $effect(() => {
    if (openRig.status !== 'offline') return;
    const timer = setInterval(() => void openRig.open(rig), 3000);
    return () => clearInterval(timer);
  });
  // something heavy is still worked out on the server: look again until it is there
  const RECKONING_MS = 350;
  const reckoning = $derived(assessment?.reckoning === true);
  $effect(() => {
    if (!reckoning) return;
    let here = true;
    void poll({
      ask: () => openRig.open(rig),
      share: () => (openRig.assessment?.reckoning ? 0 : null),
      wanted: () => here,
      every_ms: RECKONING_MS,
    });
    return () => (here = false);
  });
  /** What is worked out may yet change the next step; a Stop does not wait for it. */
  const waits = $derived(
    assessment?.reckoning === true && !assessment.findings.some((one) => one.severity === 'stop'),
  );
  /** On a phone the findings stand below the work: what waits there is said above it. */
  const findingsSaid = $derived.by(() => {
    const graver = (assessment?.findings ?? []).filter(
      ({ severity }) => severity !== 'good',
    ).length;
    if (!graver) return 'Findings: nothing to put right';
    return graver === 1 ? 'One finding to look at' : `${graver} findings to look at`;
  });

  function toFindings() {
    lookAt(document.getElementById('findings-title'));
  }

  function toWork(event: MouseEvent) {
    event.preventDefault();
    document.getElementById('work')?.focus();
  }

  // another page: its heading takes the focus, unless a control was asked for
  const MOST_FRAMES = 300;
  let shown = route.pathname;
  $effect(() => {
    const { pathname } = route;
    if (pathname === shown) return;
    shown = pathname;
    const stop = new AbortController();
    void headingOf(stop.signal).then((heading) => {
      const active = document.activeElement;
      const work = document.getElementById('work');
      if (!heading || openRig.wanted || (active !== work && work?.contains(active))) return;
      if (active?.matches('input, textarea, select')) return;
      heading.setAttribute('tabindex', '-1');
      heading.focus({ preventScroll: true });
    });
    return () => stop.abort();
  });

  /** The heading of the page, as soon as it stands; null when another page was opened before. */
  async function headingOf(stop: AbortSignal): Promise<HTMLElement | null> {
    for (let frame = 0; frame < MOST_FRAMES && !stop.aborted; frame += 1) {
      await new Promise((done) => requestAnimationFrame(done));
      const heading = document.querySelector<HTMLElement>('#work h1');
      if (heading) return stop.aborted ? null : heading;
    }
    return null;
  }
</script>

<svelte:window
  onkeydown={keys.handle}
  onfocus={() => {
    if (!rig) return;
    void openRig.open(rig);
    void clock.look();
  }}
  ononline={() => rig && void openRig.open(rig)}
/>

<TermPopover />
<div class="frame">
  <a class="skip" href="#work" onclick={toWork}>Skip to the work</a>
  <header class="flex items-center gap-3 border-b border-line px-5 py-1.5 max-md:px-3">
    <Wordmark />
    <RigSwitcher {assessment} />
    <HeaderTools />
  </header>
  {#if openRig.status === 'missing'}
    <main class="col-span-full p-8">
      <h1>No such rig</h1>
      <p class="mt-2">There is no rig at this address. It may have been made on another machine.</p>
      <p class="mt-4"><a class="act" href="/">All rigs</a></p>
    </main>
  {:else if !assessment}
    <main class="col-span-full p-8 text-soft" aria-busy="true">
      {#if openRig.status === 'offline'}
        <h1 class="text-ink">Lyrandis does not answer</h1>
        <p class="mt-2">See that it is still running. This page tries again by itself.</p>
      {:else}
        <p>Laying out the bench…</p>
      {/if}
    </main>
  {:else}
    <div class="work">
      <div class="rail-area"><Rail {assessment} /></div>
      <div class="md:hidden">
        {#key assessment.rig}
          <NextStepCard step={assessment.next_step} brief {waits} />
        {/key}
        <button
          class="quiet w-full border-b border-line px-3 py-2 text-left text-sm"
          onclick={toFindings}
        >
          {findingsSaid}
        </button>
      </div>
      <main class="stage-area" id="work" tabindex="-1">
        {#if openRig.status === 'offline'}
          <p class="mb-3 text-red" role="alert">
            Lyrandis does not answer. What is shown may be old; what you typed is kept.
          </p>
        {/if}
        {#if build.newer}
          <p class="mb-3 text-amber" role="status">
            A newer Lyrandis was started behind this page.
            <button class="quiet" onclick={() => location.reload()}>Load it</button>; what you typed
            is kept.
          </p>
        {/if}
        <ClockNote {rig} />
        <MayShoot may={assessment.may_shoot} large={place === 'now'} />
        {@render children()}
      </main>
      <div class="findings-area">
        <Findings {assessment} {waits} {stage} />
        <div class="pb-4 md:hidden"><FittedNow {assessment} /></div>
      </div>
    </div>
    <div class="jot-area"><JotLine {stage} /></div>
  {/if}
</div>

<style>
  .frame {
    position: relative;
    overflow: hidden;
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
    position: relative;
    overflow-y: auto;
    padding: 0.9rem 1.25rem 1.25rem;
  }
  .findings-area,
  .rail-area {
    position: relative;
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
  .work {
    display: contents;
  }
  @media (max-width: 1023px) {
    .frame {
      display: flex;
      flex-direction: column;
    }
    /* the work scrolls, the jot line stays below it and never covers a field */
    .work {
      flex: 1;
      min-height: 0;
      display: grid;
      grid-template-columns: 190px minmax(0, 1fr);
      grid-template-rows: auto minmax(0, 1fr);
      align-content: start;
      overflow: auto;
      position: relative;
    }
    .rail-area {
      grid-row: 1 / 3;
      overflow: visible;
    }
    .stage-area {
      overflow: visible;
    }
    .findings-area {
      grid-column: 2;
      border-left: 0;
      border-top: 1px solid var(--line);
      overflow: visible;
    }
  }
  @media (max-width: 767px) {
    .work {
      display: block;
    }
    .rail-area {
      border-right: 0;
      border-bottom: 1px solid var(--line);
      overflow-x: auto;
      overflow-y: hidden;
    }
    .stage-area {
      padding: 0.75rem;
    }
  }
</style>
