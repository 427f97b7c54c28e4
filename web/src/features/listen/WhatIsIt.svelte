<script lang="ts">
  import { onMount } from 'svelte';
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import SpectrogramView from '../../drawings/listen/SpectrogramView.svelte';
  import { api, type PageOf, type Spectrogram } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { FAULT_WORDS } from '../../lib/choices.gen';
  import { sayDay } from '../../lib/days';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { lbf } from '../../lib/units';
  import CheckList from './CheckList.svelte';
  import { keptSounds } from './kept.svelte';
  import ListenHead from './ListenHead.svelte';

  type Page = PageOf<'listen'>;
  const page = $derived(openRig.pages.listen as Page | undefined);

  onMount(() => void keptSounds.load());

  /** The newest recording that is kept, and which take of it is looked at. */
  let wantedMark = $state<string | null>(null);
  let number = $state(1);
  const shown = $derived(
    page?.recordings.find((one) => one.mark === wantedMark) ??
      page?.recordings.findLast((one) => one.what !== 'reference' && keptSounds.has(one.mark)),
  );
  const take = $derived(shown?.takes[Math.min(number, shown.takes.length) - 1]);
  const asked = new Asked<Spectrogram>();
  $effect(() => {
    const mark = shown?.mark;
    const at = take?.at_s;
    if (mark !== undefined && at !== undefined && keptSounds.has(mark))
      void asked.ask(() => api.spectrogram(mark, at));
  });
  const FAULTS = Object.fromEntries(FAULT_WORDS) as Record<string, string>;
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  const marks = $derived(
    take
      ? [
          ...take.spikes_ms.map((ms) => ({ ms, words: `a click at ${ms} ms` })),
          ...(take.blow_s == null ? [] : [{ ms: 1000 * take.blow_s, words: 'the arrow strikes' }]),
        ]
      : [],
  );
  const says = $derived.by(() => {
    if (!take || !shown) return '';
    const clicks = take.spikes_ms.length
      ? `${take.spikes_ms.length} clicks while it rings, at ${take.spikes_ms.slice(0, 8).join(', ')} ms`
      : 'no clicks while it rings';
    const bursts = `${take.bursts_ms.length} burst${take.bursts_ms.length === 1 ? '' : 's'} round the release`;
    const blow =
      take.blow_s == null ? '' : `; the arrow strikes at ${Math.round(1000 * take.blow_s)} ms`;
    return `Take ${take.number} of the ${shown.what} of ${sayDay(shown.at)}: ${clicks}, ${bursts}${blow}. Dark is loud; amber marks a click.`;
  });
</script>

<WhenReady key="listen">
  {#snippet children(_, stage, found)}
    <ListenHead {stage} page={found} />
    <div class="both">
      <section aria-labelledby="points-title">
        <h2 id="points-title">The sound points to</h2>
        {#if !found.pointed}
          <p class="verdict">nothing yet</p>
          <p class="text-soft">Record a pluck and a shot on the page before this one.</p>
        {:else if found.pointed.fault}
          <p class="verdict">{FAULTS[found.pointed.fault]}</p>
          <p>
            {found.pointed.hint ? 'A hint only, ' : ''}{percent(found.pointed.sure)} sure, on made-up
            sound.
          </p>
          <p class="mt-1 font-semibold">{found.pointed.proof}</p>
        {:else if found.pointed.blind}
          <p class="verdict">cannot be told with this recording</p>
          <p>
            The phone adjusts its own gain: what is louder or quieter is lost. Switch it off, and
            record again.
          </p>
        {:else if !found.pointed.enough}
          <p class="verdict">not enough to say</p>
          <p>One more set of takes of each would tell.</p>
        {:else}
          <p class="verdict">nothing found</p>
          <p>
            {found.pointed.has_before
              ? `${percent(found.pointed.sure)} sure, against this bow's own before.`
              : 'Without a before only a loose part or a slack strand can be told.'}
          </p>
        {/if}
        {#if found.pointed?.because.length}
          <ul class="mt-2">
            {#each found.pointed.because as line, n (n)}<li>{tell(line)}</li>{/each}
          </ul>
        {/if}
        <p class="mt-2 text-sm text-soft">
          Proved on made-up sound of a second kind; no recorded bow was compared.
        </p>
      </section>
      <section aria-labelledby="note-title">
        <h2 id="note-title">The string's note and its tension</h2>
        {#if found.tension}
          {@const told = found.tension}
          <dl class="tension">
            <dt>note</dt>
            <dd>
              <strong>{told.note_hz.toFixed(1)} Hz</strong>
              {#if told.expected_hz != null}
                <span class="text-soft">the sums expect {told.expected_hz.toFixed(1)}</span>
              {/if}
            </dd>
            <dt>by the note</dt>
            <dd><strong>{figure(lbf(told.by_note_lbf, told.by_note_half))}</strong></dd>
            <dt>by draw weight and brace</dt>
            <dd>
              {told.by_statics_lbf == null
                ? 'needs the draw weight'
                : figure(lbf(told.by_statics_lbf, told.by_statics_half ?? null))}
            </dd>
          </dl>
          <p class:text-amber={Math.abs(told.apart ?? 0) >= 2} class="mt-1">
            {#if told.apart == null}
              Weigh the draw, and the two are compared.
            {:else if Math.abs(told.apart) < 2}They agree.
            {:else}
              They disagree: check the brace and its datum, the string's mass or strands, its
              length, the weighed draw weight.
            {/if}
          </p>
          <p class="text-sm text-soft">
            {told.mass_weighed
              ? 'String weighed.'
              : 'The string is not weighed: that is most of the doubt. Weigh it.'}
            Pitch tells tension, never brace height.
          </p>
        {:else}
          <p class="mt-1">
            {found.expected_hz == null
              ? "Needs a pluck, and the string's mass or strands."
              : found.plucked
                ? `Brace, string or bow were changed since the last pluck: pluck it anew. The sums expect ${found.expected_hz.toFixed(1)} Hz.`
                : `Pluck it: the sums expect ${found.expected_hz.toFixed(1)} Hz.`}
          </p>
        {/if}
      </section>
    </div>
    {#if shown}
      <section class="mt-4" aria-labelledby="picture-title">
        <h2 id="picture-title">Where it is heard</h2>
        <div class="pick">
          <label>
            <span class="label block">Recording</span>
            <select
              class="field"
              value={shown.mark}
              onchange={(event) => {
                wantedMark = event.currentTarget.value;
                number = 1;
              }}
            >
              {#each found.recordings.filter((one) => keptSounds.has(one.mark)) as one (one.mark)}
                <option value={one.mark}>{one.what}, {sayDay(one.at)}</option>
              {/each}
            </select>
          </label>
          <label>
            <span class="label block">Take</span>
            <select class="field" bind:value={number}>
              {#each shown.takes as one (one.number)}
                <option value={one.number}>{one.number}{one.struck ? ', struck out' : ''}</option>
              {/each}
            </select>
          </label>
        </div>
        {#if asked.data && keptSounds.has(shown.mark)}
          <SpectrogramView picture={asked.data} {marks} {says} />
        {:else if asked.problem}
          <p class="text-soft">{asked.problem.reason} {asked.problem.instruction}</p>
        {/if}
      </section>
    {/if}
    <CheckList checks={found.checks} />
    <Cautions {stage} />
  {/snippet}
</WhenReady>

<style>
  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.5rem;
  }
  .verdict {
    font-size: 1.75rem;
    font-weight: 700;
    line-height: 1.2;
  }
  .tension {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0.15rem 1rem;
    margin-top: 0.35rem;
  }
  dt {
    color: var(--soft);
  }
  .pick {
    display: flex;
    gap: 0.75rem;
    margin: 0.35rem 0 0.6rem;
    max-width: 28rem;
  }
  @media (max-width: 800px) {
    .both {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
