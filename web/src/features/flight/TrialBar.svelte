<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { PageOf } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { wanted } from '../../lib/wanted';

  let { page }: { page: PageOf<'flight'> } = $props();

  const recording = new Recording();

  function back() {
    const subject = { kind: 'rig' as const, id: openRig.rig ?? '' };
    void recording.record(
      [{ subject, reading: { kind: 'trial_set', trial: null } }],
      null,
      'Trial over, put back',
    );
  }
</script>

<div {@attach wanted('trial')} tabindex="-1" class="outline-none">
  {#if page.trial_says}
    <div class="bar">
      <p>
        <strong>{page.asked?.shot ? 'Now put it back' : 'Do this'}:</strong>
        {#if page.asked?.shot}
          {page.asked.back}
        {:else if page.asked}
          {tell(page.asked.act)} What you see is recorded with it.
        {:else}
          {tell(page.trial_says)}.
        {/if}
      </p>
      <button
        class={page.asked?.shot ? 'act lg:hidden' : 'quiet'}
        disabled={recording.busy}
        onclick={back}>{page.asked?.shot ? 'It is put back' : 'leave the trial'}</button
      >
      {#if recording.problem}<ProblemNote problem={recording.problem} id="problem-trial" />{/if}
    </div>
  {:else if page.asked}
    <div class="bar">
      <p><strong>Do this:</strong> {tell(page.asked.act)}</p>
    </div>
  {/if}
</div>

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 0.5rem 1rem;
    border: 1px dashed var(--ink);
    padding: 0.5rem 0.75rem;
    margin-bottom: 0.75rem;
  }
</style>
