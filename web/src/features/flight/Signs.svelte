<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { EntryDraft, PageOf } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { Reading } from '../../lib/reading.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { wanted } from '../../lib/wanted';

  let { page }: { page: PageOf<'flight'> } = $props();

  const recording = new Recording();
  let column = $state(false);
  const walk = new Reading({
    from: 'walkback',
    fields: { marks: '' },
    line: () => ['walkback', { field: 'marks' }],
  });
  $effect(() => {
    if (!walk.empty) column = true;
  });

  /** Which sign the next step asks for. */
  const ASKED: Partial<Record<string, string>> = {
    mark: 'Felt, after 6 shots',
    slap: 'Slap heard',
  };
  const trial = $derived(page.trial ?? null);
  type Sign = readonly [string, string, EntryDraft['reading']];
  const SIGNS = $derived<readonly (readonly [string, readonly Sign[]])[]>([
    [
      'Felt, after 6 shots',
      [
        ['no mark', 'No mark on the plate', { kind: 'plate_marked', mark: false, shots: 6, trial }],
        ['mark', 'Mark on the plate', { kind: 'plate_marked', mark: true, shots: 6, trial }],
      ],
    ],
    [
      'Slap heard',
      [
        ['no', 'No slap heard', { kind: 'slap_heard', heard: false, trial }],
        ['yes', 'A slap heard', { kind: 'slap_heard', heard: true, trial }],
      ],
    ],
    [
      'Feathers at the base',
      [
        ['clean', 'Feathers clean', { kind: 'feathers_seen', rubbed: false }],
        ['rubbed', 'Feathers rubbed', { kind: 'feathers_seen', rubbed: true }],
      ],
    ],
  ]);

  function record(reading: EntryDraft['reading'], says: string) {
    const subject = { kind: 'rig' as const, id: openRig.rig ?? '' };
    void recording.record([{ subject, reading }], null, says);
  }
</script>

<section class="signs outline-none" aria-label="Signs" tabindex="-1" {@attach wanted('signs')}>
  {#each SIGNS as [title, choices] (title)}
    <fieldset class:asked={title === ASKED[page.asked?.sees ?? '']}>
      <legend class="label">{title}</legend>
      <div class="flex">
        {#each choices as [word, says, reading] (word)}
          <button class="sign" disabled={recording.busy} onclick={() => record(reading, says)}
            >{word}</button
          >
        {/each}
      </div>
    </fieldset>
  {/each}
  <div>
    <span class="label block">Walk-back</span>
    <button class="sign" aria-expanded={column} onclick={() => (column = !column)}
      >{column ? 'Close the column' : 'Start a column'}</button
    >
  </div>
</section>
{#if recording.problem}<ProblemNote problem={recording.problem} id="problem-signs" />{/if}
{#if column}
  <LineForm
    reading={walk}
    id="walkback"
    where={false}
    columns="grid-cols-[1fr_auto] items-end"
    hint="Kept with its drift, as the setting it is. It counts for nothing on Evidence: no absolute left or right is computed."
  >
    {#snippet children(record)}
      <LineInput
        reading={walk}
        form="walkback"
        name="marks"
        label="Each distance, and where it struck"
        placeholder="e.g. 10m 0, 15m 1cm left, 20m 2cm left"
      />
      {@render record()}
    {/snippet}
  </LineForm>
{/if}

<style>
  .signs {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
    gap: 0.6rem 1.25rem;
    border-top: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
    padding: 0.6rem 0;
    margin-top: 0.75rem;
  }
  .asked {
    outline: 2px solid var(--ink);
    outline-offset: 6px;
  }
  .sign {
    min-height: 2.4rem;
    padding: 0 0.8rem;
    border: 1px solid var(--line);
    background: var(--raised);
  }
  .sign + .sign {
    border-left-width: 0;
  }
  .sign:hover {
    background: var(--faint);
  }
</style>
