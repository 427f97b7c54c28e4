<script lang="ts">
  import { onDestroy } from 'svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import { api, type InstrumentOut } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { figure, figureParts } from '../../lib/preferences.svelte';
  import { mm, type Figure } from '../../lib/units';
  import { valueOf } from '../../lib/values';
  import { Taking, type Fault } from './taking.svelte';

  const asked = new Asked<InstrumentOut[]>();
  void asked.ask(api.instruments);
  const taking = new Taking();
  onDestroy(() => taking.stop());

  const FAULTS: readonly (readonly [Fault | '', string])[] = [
    ['', 'works as it should'],
    ['drift', 'drifts'],
    ['timeout', 'says nothing'],
    ['unplugged', 'is unplugged in the middle'],
    ['low_battery', 'low battery'],
    ['nonsense', 'sends nonsense'],
  ];
  const DRAWS_IN = [0, -2, -4, -6];

  let kind = $state<InstrumentOut['kind']>('grain_scale');
  let arrow = $state(1);
  let back = $state(0);
  let fault = $state<Fault | ''>('');

  const chosen = $derived(asked.data?.find((one) => one.kind === kind) ?? null);
  const own = $derived(valueOf(openRig.stage('archer'), 'draw_length')?.figure?.value ?? 711.2);
  const drawMm = $derived(kind === 'bow_scale' ? own + 25.4 * back : null);
  const shown = $derived.by((): Figure | null =>
    taking.value === null || !chosen ? null : { value: taking.value, unit: chosen.unit },
  );

  function press() {
    if (!chosen) return;
    const number = arrow;
    const unit = chosen.unit;
    taking.take(
      kind,
      { arrow: number, drawMm, fault: fault || null },
      (value) =>
        `${taking.counts(kind) ? `Arrow ${number}: ` : ''}${figure({ value, unit })}, simulated`,
      () => {
        if (taking.counts(kind)) arrow = number + 1;
      },
    );
  }
  function choose(one: InstrumentOut['kind']) {
    if (taking.busy) return;
    kind = one;
    taking.value = null;
    taking.taken = null;
    taking.failed = null;
  }
</script>

<header class="mb-3">
  <h1>Instruments</h1>
  <p class="text-soft">
    <strong class="text-amber">Simulated.</strong> Stand-ins that ship with Lyrandis: nothing is measured,
    and what they record is marked so. The simulated microphone stands beside each recording under Listen.
  </p>
</header>
{#if asked.problem}
  <DidNotCome problem={asked.problem} again={() => asked.ask(api.instruments)} />
{:else if !asked.data}
  <p class="text-soft" aria-busy="true">Laying out the instruments…</p>
{:else}
  <div class="mb-3 flex flex-wrap gap-2" role="group" aria-label="Which instrument">
    {#each asked.data as one (one.kind)}
      <button
        class="act"
        class:act-strong={one.kind === kind}
        aria-pressed={one.kind === kind}
        disabled={taking.busy && one.kind !== kind}
        onclick={() => choose(one.kind)}>{one.name}</button
      >
    {/each}
  </div>
  {#if chosen}
    <section aria-labelledby="display" class="border border-line bg-raised p-4">
      <h2 id="display">{chosen.name}, {chosen.measures}</h2>
      <p class="display" class:still={taking.taken !== null} aria-live="off">
        {shown ? `${figureParts(shown).number} ${figureParts(shown).unit}` : '–'}
      </p>
      <p class="min-h-6" role="status">
        {#if taking.failed}
          <span class="text-red">{taking.failed}</span>
        {:else if taking.taken}
          <strong
            >Recorded{taking.taken.arrow === null ? '' : `, arrow ${taking.taken.arrow}`}:</strong
          >
          {figure({
            value: taking.taken.value,
            unit: chosen.unit,
            plus_minus: taking.taken.plusMinus,
          })}, simulated. Ctrl Z takes it back.
        {:else if taking.busy}
          <span class="text-soft">Waiting until it is still…</span>
        {/if}
      </p>
      <div class="mt-2 flex flex-wrap items-end gap-3">
        <button class="act act-strong" onclick={press} aria-disabled={taking.busy}>
          {taking.counts(kind) ? `Take arrow ${arrow}` : 'Take reading'}
        </button>
        {#if taking.counts(kind)}
          <label class="label w-auto">
            arrow
            <input
              class="field block w-24"
              type="number"
              min="1"
              max="200"
              bind:value={arrow}
              disabled={taking.busy}
            />
          </label>
        {:else if kind === 'bow_scale'}
          <label class="label w-auto">
            string drawn to
            <select class="field block w-32" bind:value={back} disabled={taking.busy}>
              {#each DRAWS_IN as inches (inches)}
                <option value={inches}>{figure(mm(own + 25.4 * inches))}</option>
              {/each}
            </select>
          </label>
        {/if}
        <label class="label w-auto">
          to be tried
          <select class="field block w-60" bind:value={fault} disabled={taking.busy}>
            {#each FAULTS as [name, words] (name)}<option value={name}>{words}</option>{/each}
          </select>
        </label>
      </div>
      {#if taking.problem}<ProblemNote problem={taking.problem} id="problem-instrument" />{/if}
    </section>
    <p class="mt-3 text-sm text-soft">
      A dozen arrows is twelve presses of Enter: the number counts on by itself. A device of your
      own is one class in <code>instruments/</code>.
    </p>
  {/if}
{/if}

<style>
  .display {
    font-size: 3.4rem;
    font-weight: 600;
    line-height: 1.2;
    color: var(--soft);
  }
  .display.still {
    color: var(--ink);
  }
</style>
