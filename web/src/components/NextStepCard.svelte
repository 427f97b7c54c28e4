<script lang="ts">
  import type { Assessment, NextStep } from '../lib/api';
  import { Doing } from '../lib/doing.svelte';
  import { pathOf } from '../lib/go';
  import { tell } from '../lib/preferences.svelte';
  import { route } from '../lib/navigation';
  import { openRig } from '../lib/openrig.svelte';
  import { Recording } from '../lib/recording.svelte';
  import ProblemNote from './ProblemNote.svelte';
  import TheSum from './TheSum.svelte';
  import Told from './Told.svelte';

  let {
    step: now,
    assessment = null,
    brief = false,
    waits = false,
  }: {
    step: NextStep;
    /** With it, the sum of the finding it comes from can be shown. */
    assessment?: Assessment | null;
    brief?: boolean;
    waits?: boolean;
  } = $props();

  // while something is worked out the step may yet change: the last one stays until it is known
  let settled = $state.raw<NextStep | null>(null);
  $effect.pre(() => {
    if (!waits) settled = now;
  });
  const step = $derived(waits ? settled : now);

  const saying = new Recording();
  const doing = new Doing();
  /** Remember that a step is not done now; it can be taken back like any entry. */
  function setAside({ aside, title }: NextStep): void {
    if (!openRig.rig || !aside) return;
    const reading = { kind: 'step_set_aside' as const, step: aside, aside: true };
    const subject = { kind: 'rig' as const, id: openRig.rig };
    void saying.record([{ subject, reading }], null, `Set aside for now: ${tell(title)}`);
  }

  const id = $props.id();
  /** The finding it comes from: its sentence stands here, so here stands its sum; a Stop has both. */
  const finding = $derived(
    assessment?.findings.find((one) => one.id === step?.finding && one.severity !== 'stop') ?? null,
  );
  /** Of a danger the card's title says already what is done. */
  const stops = $derived(
    assessment?.findings.some((one) => one.id === step?.finding && one.severity === 'stop') ??
      false,
  );
  let open = $state(false);
  /** On the page where it is done the button would only be in the way. */
  const here = $derived(step?.on_page && route.pathname.endsWith(`/${pathOf(step.action)}`));
</script>

<section
  aria-labelledby={brief ? undefined : id}
  aria-label={brief ? 'Next step in brief' : undefined}
  class="card rounded bg-ink p-4 text-on-ink"
  class:brief
>
  {#if !brief}<p class="text-sm opacity-80">Next step</p>{/if}
  {#if step}
    <h2 {id}>{tell(step.title)}</h2>
    {#if !brief}
      <p class="mt-2"><Told text={tell(step.why)} /></p>
      {#if step.tells.template}<p class="mt-1 opacity-90">{tell(step.tells)}</p>{/if}
    {/if}
    <div class="mt-3 flex items-center justify-between gap-3">
      {#if !here}
        <button
          class="min-h-9 rounded bg-paper px-3 font-semibold whitespace-nowrap text-ink"
          disabled={doing.recording.busy}
          onclick={() => void doing.act(step.action)}
        >
          {stops ? 'Go there' : step.action.label}
        </button>
      {/if}
      {#if !brief}<span class="text-sm whitespace-nowrap opacity-80">{step.minutes} min</span>{/if}
    </div>
    {#if !brief && finding}
      <button class="mt-2 text-sm underline opacity-90" onclick={() => (open = !open)}>
        {open ? 'hide the sum' : 'show the sum'}
      </button>
      {#if open}<TheSum {finding} />{/if}
    {/if}
    {#if !brief && step.other}
      {@const other = step.other}
      <button
        class="mt-2 text-sm underline opacity-90"
        disabled={doing.recording.busy}
        onclick={() => void doing.act(other)}>{other.label}</button
      >
    {/if}
    {#if doing.recording.problem}
      <div class="mt-2 rounded bg-paper p-2 text-ink">
        <ProblemNote problem={doing.recording.problem} id="problem-next-step" />
      </div>
    {/if}
    {#if !brief && step.aside}
      <button class="mt-2 text-sm underline opacity-90" onclick={() => setAside(step)}>
        {step.aside === 'scale' || step.aside === 'arrow_mass' ? 'I have no scale' : 'Not now'}
      </button>
    {/if}
  {:else}
    <h2 {id}>One moment</h2>
    {#if !brief}<p class="mt-2">What the flight shows is being worked out.</p>{/if}
  {/if}
</section>

<style>
  .card :global(:focus-visible) {
    outline-color: var(--on-ink);
  }
  h2 {
    font-size: 1.2rem;
    font-weight: 700;
    line-height: 1.2;
    color: var(--on-ink);
  }
  .brief {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 1rem;
    border-radius: 0;
    padding: 0.5rem 0.75rem;
  }
  .brief h2 {
    font-size: 1rem;
  }
  .brief div {
    margin: 0;
  }
</style>
