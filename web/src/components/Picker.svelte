<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { wanted } from '../lib/wanted';

  let {
    id,
    label,
    control = null,
    recorded,
    options,
    none = null,
    pick,
    invalid = false,
    says,
  }: {
    id: string;
    /** What is chosen, for the button that records it. */
    label: string;
    /** Name that findings use to point here. */
    control?: string | null;
    /** What is recorded now; empty for nothing. */
    recorded: string;
    options: readonly (readonly [string, string])[];
    /** Words for nothing, where nothing can be chosen. */
    none?: string | null;
    /** Record a choice; resolves when it is recorded or refused. */
    pick: (value: string) => Promise<unknown>;
    invalid?: boolean;
    /** Id of what is said of it. */
    says?: string;
  } = $props();

  let select = $state<HTMLSelectElement>();
  /** Chosen with the keys, which pass over what lies between: recorded when it is meant. */
  let passing = $state<string | null>(null);
  /** Chosen and on its way, in order. */
  let sent = $state.raw<string[]>([]);
  let byKey = false;

  /** What shows is not what is recorded or on its way. */
  const waits = $derived(passing !== null && passing !== (sent.at(-1) ?? recorded));
  const shown = $derived(passing ?? sent.at(-1) ?? recorded);

  function change(event: Event & { currentTarget: HTMLSelectElement }) {
    if (byKey) passing = event.currentTarget.value;
    else void choose(event.currentTarget.value);
  }

  async function choose(value: string) {
    passing = null;
    if (value === (sent.at(-1) ?? recorded)) return;
    sent = [...sent, value];
    await pick(value);
    sent = sent.slice(1);
    // a refused choice falls back to what is recorded
    if (select) select.value = shown;
  }

  function keydown(event: KeyboardEvent) {
    if (event.key === 'Tab') {
      // what shows when the field is left is what is meant
      if (passing !== null) void choose(passing);
      return;
    }
    byKey = true;
    if (passing === null) return;
    if (event.key === 'Enter') {
      event.preventDefault();
      void choose(passing);
    } else if (event.key === 'Escape') {
      event.stopPropagation();
      passing = null;
      if (select) select.value = shown;
    }
  }

  const named = (node: HTMLElement) => (control ? wanted(control)(node) : undefined);
</script>

<div class="flex gap-1">
  <select
    bind:this={select}
    {@attach named}
    {id}
    class="field"
    value={shown}
    onchange={change}
    onkeydown={keydown}
    onpointerdown={() => (byKey = false)}
    onblur={() => (byKey = false)}
    aria-invalid={invalid ? 'true' : undefined}
    aria-describedby={says}
  >
    <option value="" disabled={none === null}>{none ?? 'not told'}</option>
    {#each options as [value, words] (value)}
      <option {value}>{words}</option>
    {/each}
  </select>
  {#if waits}
    <button
      type="button"
      class="act px-2"
      title="Record (Enter)"
      onclick={() => void choose(passing ?? '')}
    >
      <Check size={18} aria-hidden="true" /><span class="sr-only">Record {label}</span>
    </button>
  {/if}
</div>
{#if waits}
  <p class="text-sm text-amber" role="status">Not recorded yet: ✓ or Enter.</p>
{/if}
