<script lang="ts">
  import { onMount, tick } from 'svelte';
  import Chips from '../../components/Chips.svelte';
  import FindingItem from '../../components/FindingItem.svelte';
  import HeaderTools from '../../components/HeaderTools.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TermPopover from '../../components/TermPopover.svelte';
  import TermWord from '../../components/TermWord.svelte';
  import RailMark from '../../components/RailMark.svelte';
  import ValueText from '../../components/ValueText.svelte';
  import Wordmark from '../../components/Wordmark.svelte';
  import BowSilhouette from '../../drawings/BowSilhouette.svelte';
  import FirstDraw from '../../drawings/FirstDraw.svelte';
  import { bowKinds } from '../../drawings/bow-kinds.svelte';
  import { api } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import { KINDS } from '../../lib/choices';
  import { foremost } from '../../lib/findings';
  import { keys } from '../../lib/keys.svelte';
  import { goToPath } from '../../lib/navigation';
  import { figure, preferences, tell } from '../../lib/preferences.svelte';
  import { mm, otherUnits, say } from '../../lib/units';
  import { headline } from '../../lib/values';
  import AtOnce from './AtOnce.svelte';
  import BringLogbook from './BringLogbook.svelte';
  import NamesDialog from './NamesDialog.svelte';
  import { DRAW_TO, FirstRun, type Typed } from './first-run.svelte';

  let {
    empty = false,
    came = () => undefined,
  }: {
    /** True where nothing is on this bench yet. */
    empty?: boolean;
    /** Called when rigs came from elsewhere: the demo, or a saved logbook. */
    came?: () => unknown;
  } = $props();

  document.title = 'New rig · Lyrandis';

  const run = new FirstRun();
  const demo = new Asked<unknown>();
  let naming = $state(false);
  const inch = $derived(preferences.units === 'inch');
  const draw = $derived(run.number('draw'));
  const here = $derived(foremost(run.asked.data?.findings ?? []));

  onMount(() => {
    bowKinds.load();
    void tick().then(() => document.getElementById('first-draw')?.focus({ preventScroll: true }));
  });

  async function lookAround() {
    if (!(await demo.ask(api.loadDemo))) return;
    await (empty ? came() : goToPath('/'));
  }

  async function make(event: SubmitEvent) {
    event.preventDefault();
    await run.settle();
    const wrong = run.firstWrong;
    if (wrong) document.getElementById(`first-${wrong}`)?.focus();
    else naming = true;
  }

  /** The draw on our datum, as it is understood. */
  const heard = $derived.by(() => {
    if (run.supposed || !draw?.figure) return null;
    const length = mm(draw.figure.value);
    const other = say(length, otherUnits(preferences.units));
    return `${figure(length)}, ${other}; known to ± ${figure(mm(draw.figure.plus_minus ?? 0))}`;
  });
  const EXAMPLES = $derived<Record<Typed, string>>(
    inch
      ? { draw: '27 3/8', span: '70', tape: '27', mark: '44 @ 28', length: '64', mass: '431gr', spine: '600' }
      : { draw: '69.5', span: '178', tape: '69', mark: '44lb @ 71', length: '163', mass: '28g', spine: '600' },
  ); // prettier-ignore
</script>

<svelte:window onkeydown={keys.handle} />

{#snippet note(field: Typed)}
  {@const wrong = run.wrong(field)}
  {#if wrong}
    <ProblemNote
      problem={wrong.problem}
      id="problem-{field}"
      onguess={(text) => run.meant(field, text)}
    />
  {/if}
{/snippet}

{#snippet small(field: Typed, label: string, wide = false)}
  <label class="row">
    <span class="label">{label}</span>
    <input
      id="first-{field}"
      class="field {wide ? 'wide' : 'little'}"
      autocomplete="off"
      maxlength={60}
      placeholder="e.g. {EXAMPLES[field]}"
      bind:value={run.answers[field]}
      aria-invalid={run.wrong(field) ? 'true' : undefined}
      aria-describedby={run.wrong(field) ? `problem-${field}` : undefined}
    />
  </label>
{/snippet}

<TermPopover />
<div class="frame">
  <header class="flex items-center gap-3 border-b border-line px-5 py-1.5 max-md:px-3">
    <Wordmark />
    {#if empty}
      <span class="rounded border border-line bg-raised px-3 py-1.5 max-sm:hidden">
        <strong class="font-semibold">New bench</strong>
        <span class="text-sm text-soft">nobody yet</span>
      </span>
    {:else}
      <a class="act" href="/">All rigs</a>
    {/if}
    <HeaderTools />
  </header>
  <div class="work">
    <nav aria-label="What is known so far" class="rail">
      <ol>
        {#each run.asked.data?.stages ?? [] as stage (stage.key)}
          <li class="step">
            <span class="w-4 text-sm text-soft max-md:hidden">{stage.number}</span>
            <span class="min-w-0 flex-1">
              <span class="block text-sm text-soft">{stage.name}</span>
              <span class="font-semibold">
                {#if stage.mark === 'unset' || (stage.key === 'archer' && run.supposed)}
                  <span class="font-normal text-soft">asked here</span>
                {:else}
                  <ValueText value={headline(stage)} plain />
                {/if}
              </span>
              {#if stage.detail && stage.mark !== 'unset' && !(stage.key === 'archer' && run.supposed)}
                <span class="text-sm text-soft max-md:hidden">{tell(stage.detail)}</span>
              {/if}
            </span>
            <RailMark mark={stage.key === 'archer' && run.supposed ? 'unset' : stage.mark} />
          </li>
        {/each}
      </ol>
      <p class="mt-3 px-5 text-sm text-soft max-md:hidden">
        String, nock, flight and the rest follow when these three stand. Nothing is lost by leaving
        now.
      </p>
    </nav>
    <main>
      <form id="first-run" onsubmit={make} novalidate>
        <h1>How long is your draw?</h1>
        <p class="text-soft">
          Three questions on one page. Leave any empty: what stands in for it is said, and recorded
          nowhere.
        </p>
        <FirstDraw
          draw={run.draw_mm}
          supposed={run.supposed}
          bow={run.asked.data?.bow ?? null}
          ondraw={(to) => run.hold(to)}
        />
        <div class="two">
          <div>
            <label class="label block" for="first-draw">
              {run.answers.draw_to === 'trade'
                ? `From the string to the deepest of the grip, and ${inch ? '1¾ in' : '4.4 cm'} more`
                : run.answers.draw_to === 'pivot'
                  ? 'From the string to the deepest of the grip'
                  : run.answers.draw_to === 'back'
                    ? 'From the string to the bow’s back, over the arrow'
                    : 'Your draw, as you were told it'}
            </label>
            <div class="mt-1 flex flex-wrap items-center gap-x-3">
              <input
                id="first-draw"
                class="field draw"
                autocomplete="off"
                maxlength={60}
                placeholder="e.g. {EXAMPLES.draw}"
                bind:value={run.answers.draw}
                aria-invalid={run.wrong('draw') ? 'true' : undefined}
                aria-describedby="heard-draw"
              />
              <label class="flex min-h-9 items-center gap-2 text-sm">
                <input type="checkbox" bind:checked={run.answers.marked} />
                marked on an arrow
              </label>
              <TermWord term="marked_arrow" text="where?" />
            </div>
            <div id="heard-draw" class="min-h-[1.35rem] text-sm text-soft" aria-live="polite">
              {#if run.wrong('draw')}{@render note('draw')}{:else if heard}{heard}{/if}
            </div>
            <div class="mt-1">
              <Chips
                legend="What was it measured to?"
                options={DRAW_TO.map(([value, inches, metric]) => [value, inch ? inches : metric])}
                value={run.answers.draw_to}
                onchoose={(to) => (run.answers.draw_to = to)}
              />
            </div>
          </div>
          <div class="ways">
            <h2>I do not know it</h2>
            <div class="way">
              <svg width="46" height="20" aria-hidden="true">
                <path d="M3 6v8M43 6v8M3 10H43" class="tape" />
                <circle cx="23" cy="10" r="3" fill="var(--wood)" stroke="var(--wood-line)" />
              </svg>
              {@render small('span', 'arm span')}
            </div>
            {@render note('span')}
            <div class="way">
              <svg width="46" height="20" aria-hidden="true">
                <path d="M3 4v12M3 10H38M38 4q6 6 0 12" class="tape" />
              </svg>
              {@render small('tape', 'fingertip to shoulder hollow')}
            </div>
            {@render note('tape')}
            {#if run.supposed}
              <p class="mt-2 text-sm text-soft">
                Neither? Go on: {figure(mm(run.draw_mm, draw?.figure?.plus_minus ?? null))} stands in
                for it.
              </p>
            {/if}
          </div>
        </div>
        <section class="question" aria-labelledby="which-bow">
          <h2 id="which-bow">Which bow?</h2>
          <div>
            <Chips
              legend="Which bow?"
              hidden
              options={KINDS}
              value={run.answers.family ?? null}
              onchoose={(family) => (run.answers.family = family)}
            >
              {#snippet drawn(family)}
                {#if family}<BowSilhouette kind={bowKinds.of(family)} width={84} />{/if}
              {/snippet}
            </Chips>
            <div class="mt-2 flex flex-wrap gap-x-5 gap-y-1">
              {@render small('mark', 'written on it', true)}
              {@render small('length', 'length')}
            </div>
            {@render note('mark')}
            {@render note('length')}
          </div>
        </section>
        <section class="question" aria-labelledby="which-arrow">
          <h2 id="which-arrow">Which arrow?</h2>
          <div>
            <div class="flex flex-wrap gap-x-5 gap-y-1">
              {@render small('mass', 'whole arrow on a scale')}
              {@render small('spine', 'or the number on the shaft')}
              {#if run.answers.mass.trim()}
                <label class="flex min-h-9 items-center gap-2 text-sm">
                  <input type="checkbox" bind:checked={run.answers.mass_told} /> told, not weighed
                </label>
              {/if}
            </div>
            {@render note('mass')}
            {@render note('spine')}
          </div>
        </section>
        <p class="mt-4 text-sm text-soft">
          Never draw a bow past its maker’s limit, and never let go of a string without an arrow on
          it.
        </p>
      </form>
    </main>
    <aside aria-label="What follows">
      <section class="card" aria-live="polite">
        <p class="text-sm opacity-80">At once, from what stands here</p>
        <AtOnce {run} />
        <div class="mt-3 flex items-center justify-between">
          <button class="make" form="first-run">Make my bench</button>
          <span class="text-sm opacity-80">Enter</span>
        </div>
      </section>
      {#if here.length}
        <h2 class="border-b border-line pb-2">While you type</h2>
        <ul>
          {#each here as finding (finding.id)}
            <FindingItem {finding} leads={false} />
          {/each}
        </ul>
      {/if}
      <div class="mt-4 text-sm text-soft">
        {#if empty}
          <p>
            Or look around first:
            <button class="quiet" disabled={demo.busy} onclick={lookAround}
              >three rigs of a made-up club</button
            >. They can be put away again.
          </p>
          {#if demo.problem}<ProblemNote problem={demo.problem} id="problem-demo" />{/if}
          <div class="mt-4"><BringLogbook brought={came} /></div>
        {:else}
          <p>
            Or <a class="underline" href="/new/from-bow">one with a bow that is here already</a>.
          </p>
        {/if}
      </div>
    </aside>
  </div>
  <section class="bar" aria-label="At once">
    <div class="min-w-0 text-sm"><AtOnce {run} brief /></div>
    <button class="make" form="first-run">Make my bench</button>
  </section>
</div>

<NamesDialog {run} bind:open={naming} />

<style>
  .frame {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    height: 100dvh;
  }
  .work {
    display: grid;
    grid-template-columns: 220px minmax(0, 1fr) 300px;
    min-height: 0;
  }
  .rail {
    border-right: 1px solid var(--line);
    overflow-y: auto;
    padding-top: 0.6rem;
  }
  .step {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.4rem 1.1rem;
  }
  main {
    overflow-y: auto;
    padding: 0.9rem 1.25rem 1.25rem;
  }
  aside {
    border-left: 1px solid var(--line);
    overflow-y: auto;
    padding: 1rem;
  }
  .card {
    border-radius: 4px;
    background: var(--ink);
    color: var(--on-ink);
    padding: 1rem;
    margin-bottom: 1.2rem;
  }
  .card :global(:focus-visible),
  .bar :global(:focus-visible) {
    outline-color: var(--on-ink);
  }
  .make {
    min-height: 2.4rem;
    border-radius: 4px;
    background: var(--paper);
    color: var(--ink);
    padding-inline: 0.75rem;
    font-weight: 600;
    white-space: nowrap;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 300px;
    gap: 1.4rem;
  }
  .ways {
    border-left: 1px solid var(--line);
    padding-left: 1.2rem;
  }
  .way {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    margin-top: 0.4rem;
  }
  .way :global(.row) {
    flex: 1;
    justify-content: space-between;
  }
  .tape {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .row {
    display: flex;
    align-items: center;
    gap: 0.5rem;
  }
  .draw {
    width: 9rem;
    font-size: 1.2rem;
    font-weight: 600;
  }
  .little {
    flex: none;
    width: 6.6rem;
  }
  .wide {
    flex: none;
    width: 8rem;
  }
  .question {
    display: grid;
    grid-template-columns: 118px minmax(0, 1fr);
    border-top: 1px solid var(--line);
    margin-top: 0.7rem;
    padding-top: 0.7rem;
  }
  .question h2 {
    padding-top: 0.35rem;
    color: var(--ink);
    font-size: 1.07rem;
  }
  .bar {
    display: none;
  }
  @media (max-width: 1023px) {
    .work {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto auto auto;
      align-content: start;
      overflow-y: auto;
    }
    .rail {
      border-right: 0;
      border-bottom: 1px solid var(--line);
      padding-top: 0;
      overflow: visible;
    }
    .rail ol {
      display: flex;
      overflow-x: auto;
    }
    .rail p {
      display: none;
    }
    .step {
      gap: 0.5rem;
      white-space: nowrap;
    }
    main,
    aside {
      overflow: visible;
      border-left: 0;
    }
    .card {
      display: none;
    }
    .bar {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 1rem;
      background: var(--ink);
      color: var(--on-ink);
      padding: 0.5rem 0.9rem;
    }
    .bar .make {
      min-height: 44px;
    }
  }
  @media (max-width: 767px) {
    main {
      padding: 0.75rem;
    }
    .two,
    .question {
      grid-template-columns: minmax(0, 1fr);
      gap: 0.7rem;
    }
    .ways {
      border-left: 0;
      border-top: 1px solid var(--line);
      padding: 0.6rem 0 0;
    }
    .row {
      min-height: 44px;
    }
  }
</style>
