<script lang="ts">
  import { HOLDS, PURPOSES } from '../../lib/choices';
  import { figure } from '../../lib/preferences.svelte';
  import { lbf, mm } from '../../lib/units';
  import { api, type Asking } from '../../lib/api';
  import type { Choosing } from './choose.svelte';

  let { choosing, rig }: { choosing: Choosing; rig: string | null } = $props();

  const board = $derived(choosing.board);
  let draw = $state('');
  let hold = $state('');

  /** Read a length or weight with the jot line's own grammar; nothing is recorded. */
  async function read(word: string, text: string, key: 'draw_length_mm' | 'draw_weight_lbf') {
    const { data, problem } = await api.parse(`${word} ${text}`, null, null);
    choosing.refused = problem ?? null;
    const reading = data?.reading as Record<string, unknown> | undefined;
    return typeof reading?.[key] === 'number' ? (reading[key] as number) : null;
  }

  async function tryDraw(event: SubmitEvent) {
    event.preventDefault();
    const read_mm = await read('draw', draw, 'draw_length_mm');
    if (read_mm !== null) choosing.try({ draw_mm: read_mm });
  }
  async function tryHold(event: SubmitEvent) {
    event.preventDefault();
    const read_lbf = await read('wish', hold, 'draw_weight_lbf');
    if (read_lbf !== null) choosing.try({ hold_lbf: read_lbf });
  }
  function reset() {
    draw = '';
    hold = '';
    choosing.reset();
  }
</script>

<div class="grid grid-cols-2 gap-3 lg:grid-cols-4">
  <form onsubmit={tryDraw} class="min-w-0">
    <label class="label block" for="try-draw">Draw</label>
    <input
      id="try-draw"
      class="field known"
      autocomplete="off"
      placeholder={board ? figure(mm(board.draw_mm)) : 'e.g. 28'}
      bind:value={draw}
      onblur={(event) => draw.trim() && event.currentTarget.form?.requestSubmit()}
      aria-invalid={choosing.refused ? 'true' : undefined}
      aria-describedby={choosing.refused ? 'problem-board' : undefined}
    />
  </form>
  <form onsubmit={tryHold} class="min-w-0">
    <label class="label block" for="try-hold">Weight to hold</label>
    <input
      id="try-hold"
      class="field known"
      autocomplete="off"
      placeholder={board ? figure(lbf(board.hold_lbf)) : 'e.g. 40'}
      bind:value={hold}
      onblur={(event) => hold.trim() && event.currentTarget.form?.requestSubmit()}
    />
  </form>
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
    <button class="quiet" onclick={reset}>Back to what is recorded</button>
  {:else}
    As recorded for {rig ?? 'this rig'}. Change any of them to try; nothing is recorded.
  {/if}
</p>
