<script lang="ts">
  import DidNotCome from '../../components/DidNotCome.svelte';
  import Plain from '../../components/Plain.svelte';
  import RailMark from '../../components/RailMark.svelte';
  import ValueText from '../../components/ValueText.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import { api, type RigSummary } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import { nowPath, placePath } from '../../lib/paths';
  import BringLogbook from './BringLogbook.svelte';
  import FirstRun from './FirstRun.svelte';

  const rigs = new Asked<RigSummary[]>();
  /** Putting away or taking out, by rig. */
  let moving = $state<Record<string, Asked<unknown>>>({});

  const WORDS = { stop: 'Stop', mend: 'Mend', watch: 'Watch', good: 'Good' } as const;
  const COLOURS = {
    stop: 'var(--red)',
    mend: 'var(--amber)',
    watch: 'var(--blue)',
    good: 'var(--green)',
  } as const;
  const out = $derived(rigs.data?.filter((rig) => !rig.put_away) ?? []);
  const away = $derived(rigs.data?.filter((rig) => rig.put_away) ?? []);
  const load = () => rigs.ask(api.rigs);

  void load();
  document.title = 'Rigs · Lyrandis';
  // the list comes by itself when the network does, and when what is worked out is there
  const AWAY_MS = 3000;
  const RECKONING_MS = 500;
  const again = $derived.by(() => {
    if (rigs.problem?.status === 0) return AWAY_MS;
    return rigs.data?.some((rig) => rig.reckoning) ? RECKONING_MS : null;
  });
  $effect(() => {
    if (again === null) return;
    const timer = setInterval(() => void load(), again);
    return () => clearInterval(timer);
  });

  async function putAway(rig: RigSummary, put: boolean) {
    const asked = (moving[rig.id] ??= new Asked<unknown>());
    const reading = { kind: 'put_away' as const, away: put };
    const draft = { subject: { kind: 'rig' as const, id: rig.id }, reading };
    if (await asked.ask(() => api.record([draft], rig.id, null, null))) await load();
  }
</script>

{#snippet refused(rig: RigSummary)}
  {@const problem = moving[rig.id]?.problem}
  {#if problem}<div class="w-full"><ProblemNote {problem} id="problem-{rig.id}" /></div>{/if}
{/snippet}

{#if rigs.data?.length === 0}
  <FirstRun empty came={load} />
{:else}
  <Plain>
    {#if rigs.problem}
      <DidNotCome problem={rigs.problem} again={load} />
    {/if}
    {#if !rigs.data && rigs.problem}
      <h1>Rigs</h1>
      <p class="text-soft">They are listed here as soon as Lyrandis answers.</p>
    {:else if !rigs.data}
      <p class="text-soft" aria-busy="true">Opening the workshop…</p>
    {:else}
      <div class="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1>Rigs</h1>
          <p class="text-soft">Each as it stands now, judged from what is recorded.</p>
        </div>
        <p class="flex gap-2">
          <a class="act" href="/parts">Parts</a>
          <a class="act act-strong" href="/new">New rig</a>
        </p>
      </div>
      <ul class="mt-6">
        {#each out as rig (rig.id)}
          {@const first = rig.first}
          <li class="relative border-t border-line py-5">
            <div class="flex flex-wrap items-baseline justify-between gap-x-4">
              <h2 class="name">
                <a href={nowPath(rig.id)}>{rig.name}</a>
              </h2>
              <p class="text-sm text-soft">
                {[rig.archer, rig.arrow_set].filter(Boolean).join(' · ')}
                {#if rig.origin === 'demo'}· demo{/if}
                ·
                <button class="quiet" onclick={() => void putAway(rig, true)}>
                  put away<span class="sr-only"> {rig.name}</span>
                </button>
              </p>
              {@render refused(rig)}
            </div>
            <div
              class="mt-2 grid grid-cols-[repeat(auto-fill,minmax(7.2rem,1fr))] gap-x-4 gap-y-3 md:grid-cols-[repeat(auto-fill,minmax(6.4rem,1fr))] md:gap-x-3"
            >
              {#each rig.stages as stage (stage.key)}
                <a class="flex items-start gap-2 no-underline" href={placePath(rig.id, stage.key)}>
                  <span class="mt-1"><RailMark mark={stage.mark} stop={stage.stop} /></span>
                  <span>
                    <span class="block text-sm text-soft">{stage.name}</span>
                    <span class="block text-[1.1rem] font-semibold">
                      <ValueText value={stage.headline} plain />
                    </span>
                    {#if stage.detail}
                      <span class="block text-sm text-soft">{tell(stage.detail)}</span>
                    {/if}
                  </span>
                </a>
              {/each}
            </div>
            <p class="mt-3 max-w-4xl">
              {#if first}
                <strong style:color={COLOURS[first.severity]}>{WORDS[first.severity]}.</strong>
                {tell(first.sentence)}
              {:else}
                <span class="text-soft">Nothing recorded yet.</span>
              {/if}
              <span class="mt-1 block">
                <span class="text-soft">Next:</span>
                <strong>{tell(rig.next_title)}</strong>
              </span>
            </p>
          </li>
        {/each}
      </ul>
      {#if away.length}
        <section class="border-t border-line pt-4" aria-labelledby="away-title">
          <h2 id="away-title">Put away</h2>
          <ul class="mt-1">
            {#each away as rig (rig.id)}
              <li>
                {rig.name}
                <button class="quiet text-sm" onclick={() => void putAway(rig, false)}>
                  take out<span class="sr-only"> {rig.name}</span>
                </button>
                {@render refused(rig)}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      <div class="mt-6 border-t border-line pt-4"><BringLogbook brought={load} /></div>
    {/if}
  </Plain>
{/if}

<style>
  .name {
    font-size: 1.25rem;
    font-weight: 700;
    color: var(--ink);
  }
  .name a:hover {
    text-decoration: underline;
  }
</style>
