<script lang="ts">
  // By keys the unit is typed, and Tab goes on to the next field.
  let {
    text,
    onset,
  }: {
    /** What is typed: a weight, and maybe more behind it. */
    text: string;
    /** Called with the same text, its first number in another unit. */
    onset: (text: string) => void;
  } = $props();

  const WEIGHT = /^(\s*\d+(?:[.,]\d+)?)(?:\s*(lbs?|#|kg|n)(?![a-z]))?/i;
  const UNITS = [
    ['lb', 'pounds'],
    ['kg', 'kilograms'],
    ['N', 'newtons'],
  ] as const;

  const found = $derived(WEIGHT.exec(text));
  const now = $derived(
    ['kg', 'n'].find((unit) => unit === found?.[2]?.toLowerCase())?.replace('n', 'N') ?? 'lb',
  );
</script>

{#if found}
  <span class="flex gap-3 text-sm" role="group" aria-label="In which unit">
    {#each UNITS as [unit, words] (unit)}
      <button
        type="button"
        tabindex="-1"
        class="unit"
        aria-pressed={now === unit}
        title={words}
        onclick={() => onset(text.replace(WEIGHT, `$1 ${unit}`))}>{unit}</button
      >
    {/each}
  </span>
{/if}

<style>
  .unit {
    min-width: 2rem;
    padding: 0.1rem 0.2rem;
    color: var(--soft);
    border-bottom: 2px solid transparent;
  }
  .unit[aria-pressed='true'] {
    color: var(--ink);
    font-weight: 600;
    border-bottom-color: var(--ink);
  }
  @media (pointer: coarse) {
    .unit {
      min-width: 2.75rem;
      min-height: 2.75rem;
    }
  }
</style>
