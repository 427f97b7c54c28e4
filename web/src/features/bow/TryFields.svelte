<script lang="ts">
  import { HOLDS, PURPOSES } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { lbf, mm } from '../../lib/units';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { Asking } from '../../lib/api';
  import type { Choosing } from './choose.svelte';

  let { choosing, rig }: { choosing: Choosing; rig: string | null } = $props();

  const board = $derived(choosing.data);

  const FIELDS = $derived([
    {
      id: 'try-draw',
      label: 'Draw',
      field: choosing.draw,
      go: () => choosing.tryDraw(),
      now: board ? figure(mm(board.draw_mm)) : 'e.g. 28',
    },
    {
      id: 'try-hold',
      label: 'Weight to hold',
      field: choosing.hold,
      go: () => choosing.tryHold(),
      now: board ? figure(lbf(board.hold_lbf)) : 'e.g. 40',
    },
  ]);

  function submit(event: SubmitEvent, go: () => Promise<void>) {
    event.preventDefault();
    void go();
  }
</script>

<div class="grid grid-cols-2 gap-3 lg:grid-cols-4">
  {#each FIELDS as { id, label, field, go, now } (id)}
    <form onsubmit={(event) => submit(event, go)} class="min-w-0">
      <label class="label block" for={id}>{label}</label>
      <input
        {id}
        class="field known"
        autocomplete="off"
        placeholder={now}
        bind:value={field.text}
        onblur={() => field.text.trim() && void go()}
        aria-invalid={field.problem ? 'true' : undefined}
        aria-describedby={field.problem ? `problem-${id}` : undefined}
      />
      {#if field.problem}<ProblemNote problem={field.problem} id="problem-{id}" />{/if}
    </form>
  {/each}
  <div class="min-w-0">
    <label class="label block" for="try-grip">Hold</label>
    <select
      id="try-grip"
      class="field"
      value={board?.hold ?? ''}
      onchange={(event) => choosing.try({ hold: event.currentTarget.value as Asking['hold'] })}
    >
      <option value="" disabled>not told</option>
      {#each HOLDS as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select>
  </div>
  <div class="min-w-0">
    <label class="label block" for="try-purpose">Purpose</label>
    <select
      id="try-purpose"
      class="field"
      value={board?.purpose ?? ''}
      onchange={(event) =>
        choosing.try({ purpose: event.currentTarget.value as Asking['purpose'] })}
    >
      <option value="" disabled>not told</option>
      {#each PURPOSES as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select>
  </div>
</div>
<p class="mt-1 text-sm text-soft">
  {#if choosing.tried}
    Trying, nothing is recorded.
    <button class="quiet" onclick={() => choosing.reset()}>Back to what is recorded</button>
  {:else}
    As recorded for {rig ?? 'this rig'}. Change any of them to try; nothing is recorded.
  {/if}
</p>
