<script lang="ts">
  import ChangeScale from '../../drawings/listen/ChangeScale.svelte';
  import TakeRows, { type TakeLine } from '../../drawings/listen/TakeRows.svelte';
  import TimeAxis from '../../drawings/listen/TimeAxis.svelte';
  import WhenAsked from '../../components/WhenAsked.svelte';
  import { api, type PageOf, type PairBoard } from '../../lib/api';
  import { AskedOfRig } from '../../lib/asked.svelte';
  import { sayDay, sayTime } from '../../lib/days';
  import { tell } from '../../lib/preferences.svelte';
  import { keptSounds } from './kept.svelte';
  import { sayDb } from './numbers';
  import type { Striking } from './striking.svelte';

  type Page = PageOf<'listen'>;
  type Recorded = Page['recordings'][number];
  let { page, striking }: { page: Page; striking: Striking } = $props();

  let picked = $state<{ before: string; after: string } | null>(null);
  let choosing = $state(false);
  const asked: AskedOfRig<PairBoard> = new AskedOfRig<PairBoard>((rig) => {
    const two = picked ?? { before: page.pair?.before ?? '', after: page.pair?.after ?? '' };
    return api.soundPair(rig, two.before, two.after);
  });
  $effect(() => {
    void page;
    if (picked) void asked.load();
  });
  const pair = $derived(picked ? asked.data : (page.pair ?? null));
  const recorded = (mark: string) => page.recordings.find((one) => one.mark === mark);
  const alike = $derived(page.recordings.filter((one) => one.what === pair?.what));

  let chosen = $state<{ mark: string; number: number } | null>(null);
  let held = $state(0);

  function linesOf(one: Recorded): TakeLine[] {
    const traces = keptSounds.tracesOf(one);
    return one.takes.map((take, n) => ({
      number: take.number,
      trace: traces?.[n] ?? null,
      struck: take.struck,
      says: `${sayDb(take.level_db)}${take.moved ? ', moved' : ''}`,
      spikes: take.spikes_ms,
      blow: take.blow_s == null ? null : 1000 * take.blow_s,
    }));
  }
  const name = (one: Recorded) => `${sayDay(one.at)}, ${sayTime(one.at)}`;
  const seconds = (value: number | null | undefined) => (value == null ? '–' : value.toFixed(2));
  const ring = $derived(pair?.rings.find((one) => one.octave_hz === 250));

  const HOW: Record<PairBoard['how'], string> = {
    session: 'same phone and place',
    reference: 'two places, levelled by the reference knock',
    gain: 'levels do not compare: a recorder was overloaded, or adjusts its gain',
    no: 'levels do not compare: another phone or place',
  };
  function move(one: Recorded, ms: number, letGo: boolean) {
    held = ms;
    if (!letGo || !chosen || ms === 0) return;
    held = 0;
    void striking.move(one, chosen.number, ms);
  }
</script>

{#snippet side(one: Recorded, label: string)}
  <TakeRows
    lines={linesOf(one)}
    {label}
    chosen={chosen?.mark === one.mark ? chosen.number : null}
    moved={chosen?.mark === one.mark ? held : 0}
    onchoose={(number) => {
      chosen = { mark: one.mark, number };
      held = 0;
    }}
    onmove={keptSounds.has(one.mark) ? (ms, letGo) => move(one, ms, letGo) : undefined}
    onstrike={(number) => void striking.strike(one, number)}
  />
{/snippet}

{#snippet board(pair: PairBoard)}
  {@const before = recorded(pair.before)}
  {@const after = recorded(pair.after)}
  <p class="top">
    <span>
      <strong
        >{pair.what === 'shot' ? 'Shot' : pair.what === 'pluck' ? 'Pluck' : 'Knock'},
        {HOW[pair.how]}.</strong
      >
      {#if pair.changed.length === 0}
        <span class="text-soft">Nothing was changed on the rig between them.</span>
      {:else if pair.changed.length === 1}
        <span class="text-soft"
          >Between the two one thing changed: {pair.changed.map((one) => tell(one)).join('')}.</span
        >
      {:else}
        <span class="text-amber"
          >{pair.changed.length} things changed between: {pair.changed
            .map((one) => tell(one))
            .join('; ')}. Which of them did it cannot be told.</span
        >
      {/if}
    </span>
    <button
      class="quiet whitespace-nowrap"
      aria-expanded={choosing}
      onclick={() => (choosing = !choosing)}>choose which two</button
    >
  </p>
  {#if choosing}
    <div class="choose">
      {#each ['before', 'after'] as const as which (which)}
        <label>
          <span class="label block">{which}</span>
          <select
            class="field"
            value={pair[which]}
            onchange={(event) => {
              picked = {
                before: pair.before,
                after: pair.after,
                [which]: event.currentTarget.value,
              };
              void asked.load();
            }}
          >
            {#each alike as one (one.mark)}
              <option value={one.mark}>{name(one)}, {one.takes.length} takes</option>
            {/each}
          </select>
        </label>
      {/each}
      {#if picked}<button class="quiet" onclick={() => (picked = null)}>the newest two</button>{/if}
    </div>
  {/if}
  {#if before && after}
    {@render side(before, 'before')}
    <div class="between"></div>
    {@render side(after, 'after')}
    <TimeAxis />
    {#if !keptSounds.has(before.mark) || !keptSounds.has(after.mark)}
      <p class="text-sm text-soft">
        A recording is forgotten: its numbers stay, its waves are gone.
      </p>
    {/if}
  {/if}
  <div class="answer">
    <div>
      {#if pair.level}
        <p class="text-soft">
          {pair.level.told
            ? `after is ${pair.level.change < 0 ? 'quieter' : 'louder'} by`
            : 'no difference shown'}
        </p>
        <p class="large">
          {Math.abs(pair.level.change).toFixed(1)} ± {pair.level.half.toFixed(1)} dB
        </p>
        <p class="text-soft">
          {pair.level.told
            ? `told apart, ${pair.before_count} against ${pair.after_count}`
            : `it would have shown from ${pair.level.would_show.toFixed(1)} dB on: record two more of each`}
        </p>
      {:else if pair.few}
        <p class="large">too few takes</p>
        <p class="text-soft">Three a side at least, five are better.</p>
      {:else}
        <p class="large">not comparable</p>
        <p class="text-soft">Ring, note and brightness are: they need no level.</p>
      {/if}
    </div>
    {#if pair.level}<ChangeScale {...pair.level} />{:else}<div></div>{/if}
    <dl>
      {#if ring}
        <dt>ring at 250 Hz, s</dt>
        <dd>
          {#if ring.why_not}<span class="text-soft">not measurable: {ring.why_not}</span>{:else}
            {seconds(ring.before_s)} → <strong>{seconds(ring.after_s)}</strong>{ring.half_s == null
              ? ''
              : ` ± ${ring.half_s.toFixed(2)}`}
            {#if ring.half_s != null && !ring.told}<span class="text-soft">alike</span>{/if}
          {/if}
        </dd>
      {/if}
      {#if pair.note_after_hz != null}
        <dt>string's note, Hz</dt>
        <dd>
          {pair.note_before_hz?.toFixed(1) ?? '–'} →
          <strong>{pair.note_after_hz.toFixed(1)}</strong>
          {#if pair.note_cents}
            <span class:text-soft={!pair.note_cents.told}>
              {pair.note_cents.change < 0 ? '−' : '+'}{Math.abs(pair.note_cents.change).toFixed(0)} ±
              {pair.note_cents.half.toFixed(0)} cents</span
            >
          {/if}
        </dd>
      {/if}
      {#if pair.bright}
        <dt>brightness, Hz</dt>
        <dd>
          {pair.bright_before_hz?.toFixed(0)} → <strong>{pair.bright_after_hz?.toFixed(0)}</strong>
          {#if !pair.bright.told}<span class="text-soft">alike</span>{/if}
        </dd>
      {/if}
    </dl>
  </div>
  <details class="mt-1">
    <summary class="quiet inline-block text-sm">ring of every octave</summary>
    <table class="rows rings mt-1">
      <thead>
        <tr><th>Octave</th><th>Before</th><th>After</th><th>±</th><th>So</th></tr>
      </thead>
      <tbody>
        {#each pair.rings as one (one.octave_hz)}
          <tr>
            <th scope="row">{one.octave_hz} Hz</th>
            <td>{seconds(one.before_s)}{one.before_s == null ? '' : ' s'}</td>
            <td>{seconds(one.after_s)}{one.after_s == null ? '' : ' s'}</td>
            <td>{seconds(one.half_s)}</td>
            <td class="text-soft"
              >{one.why_not
                ? `not measurable: ${one.why_not}`
                : one.half_s == null
                  ? 'too few takes'
                  : one.told
                    ? (one.after_s ?? 0) < (one.before_s ?? 0)
                      ? 'shorter'
                      : 'longer'
                    : 'alike'}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </details>
{/snippet}

{#if picked}
  <WhenAsked {asked}>{#snippet children(found)}{@render board(found)}{/snippet}</WhenAsked>
{:else if pair}
  {@render board(pair)}
{/if}

<style>
  .top {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
    margin-bottom: 0.5rem;
  }
  .choose {
    display: flex;
    flex-wrap: wrap;
    gap: 0.75rem;
    align-items: end;
    margin-bottom: 0.6rem;
  }
  .between {
    border-top: 1px solid var(--line);
    margin: 0.25rem 0;
  }
  .answer {
    display: grid;
    grid-template-columns: minmax(11rem, 1fr) minmax(0, 1.5fr) minmax(11rem, 0.9fr);
    gap: 1.25rem;
    align-items: center;
    margin-top: 0.6rem;
    padding: 0.5rem 0;
    border-block: 1px solid var(--line);
  }
  .large {
    font-size: 1.75rem;
    font-weight: 700;
    line-height: 1.15;
    white-space: nowrap;
  }
  dt {
    font-size: 0.87rem;
    color: var(--soft);
  }
  dd {
    margin-bottom: 0.25rem;
  }
  .rings {
    max-width: 36rem;
  }
  .rings tbody th {
    color: var(--ink);
    font-size: 1rem;
  }
  @media (max-width: 900px) {
    .answer {
      grid-template-columns: minmax(0, 1fr);
      gap: 0.5rem;
    }
    .top {
      flex-direction: column;
      align-items: start;
      gap: 0.25rem;
    }
  }
</style>
