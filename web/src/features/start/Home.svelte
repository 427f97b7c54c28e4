<script lang="ts">
  import Plain from '../../components/Plain.svelte';
  import RailMark from '../../components/RailMark.svelte';
  import ValueText from '../../components/ValueText.svelte';
  import { api, type Problem, type RigSummary } from '../../lib/api';
  import { tell } from '../../lib/preferences.svelte';
  import { placePath } from '../../lib/paths';
  import FirstRun from './FirstRunForm.svelte';

  let rigs = $state.raw<RigSummary[] | null>(null);
  let problem = $state.raw<Problem | null>(null);

  const WORDS = { stop: 'Stop', mend: 'Mend', watch: 'Watch', good: 'Good' } as const;
  const COLOURS = {
    stop: 'var(--red)',
    mend: 'var(--amber)',
    watch: 'var(--blue)',
    good: 'var(--green)',
  } as const;
  const out = $derived(rigs?.filter((rig) => !rig.put_away) ?? []);
  const away = $derived(rigs?.filter((rig) => rig.put_away) ?? []);

  void load();
  document.title = 'Lyrandis';

  async function load() {
    const answer = await api.rigSummaries();
    problem = answer.problem ?? null;
    rigs = answer.data ?? rigs;
  }

  async function bringDemo() {
    const answer = await api.loadDemo();
    problem = answer.problem ?? null;
    await load();
  }

  async function putAway(rig: RigSummary, put: boolean) {
    const { problem: refused } = await api.record(
      [{ subject: { kind: 'rig', id: rig.id }, reading: { kind: 'put_away', away: put } }],
      rig.id,
      null,
      null,
    );
    problem = refused ?? null;
    await load();
  }
</script>

<Plain>
  {#if problem}
    <p class="mb-4 text-red" role="alert">
      {problem.reason}
      {problem.instruction}
      <button class="quiet" onclick={load}>Try again</button>
    </p>
  {/if}
  {#if !rigs}
    <p class="text-soft" aria-busy="true">Opening the workshop…</p>
  {:else if rigs.length === 0}
    <FirstRun />
    <p class="mt-10 border-t border-line pt-4">
      Or look around first:
      <button class="quiet text-ink" onclick={bringDemo}>bring in three made-up demo rigs</button>.
      They are marked as demo and can be put away again.
    </p>
  {:else}
    <div class="flex flex-wrap items-end justify-between gap-3">
      <div>
        <h1>Rigs</h1>
        <p class="text-soft">Each as it stands now, judged from what is recorded.</p>
      </div>
      <a class="act act-strong" href="/new">New rig</a>
    </div>
    <ul class="mt-6">
      {#each out as rig (rig.id)}
        {@const first = rig.first}
        <li class="relative border-t border-line py-5">
          <div class="flex flex-wrap items-baseline justify-between gap-x-4">
            <h2 class="name">
              <a href={placePath(rig.id, 'archer')}>{rig.name}</a>
            </h2>
            <p class="text-sm text-soft">
              {[rig.archer, rig.arrow_set].filter(Boolean).join(' · ')}
              {#if rig.origin === 'demo'}· demo{/if}
              ·
              <button class="quiet" onclick={() => void putAway(rig, true)}>
                put away<span class="sr-only"> {rig.name}</span>
              </button>
            </p>
          </div>
          <div
            class="mt-2 grid grid-cols-3 gap-x-4 gap-y-3 md:grid-cols-[repeat(3,8.5rem)_1fr] md:gap-x-8"
          >
            {#each rig.stages as stage (stage.key)}
              <a class="flex items-start gap-2 no-underline" href={placePath(rig.id, stage.key)}>
                <span class="mt-1"><RailMark mark={stage.mark} /></span>
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
            <p class="min-w-0 max-md:col-span-3">
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
          </div>
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
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  {/if}
</Plain>

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
