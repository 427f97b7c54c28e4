<script lang="ts" generics="T extends string | boolean">
  let {
    legend,
    options,
    value,
    pick,
  }: {
    legend: string;
    options: readonly (readonly [T, string])[];
    value: T;
    pick: (value: T) => void;
  } = $props();
</script>

<fieldset class="flex">
  <legend class="label">{legend}</legend>
  {#each options as [one, word] (one)}
    <button type="button" aria-pressed={value === one} onclick={() => pick(one)}>{word}</button>
  {/each}
</fieldset>

<style>
  button {
    min-height: 2.25rem;
    min-width: 2.25rem;
    padding: 0 0.6rem;
    border: 1px solid var(--line);
    background: var(--raised);
  }
  button + button {
    border-left-width: 0;
  }
  [aria-pressed='true'] {
    background: var(--ink);
    color: var(--on-ink);
    border-color: var(--ink);
  }
</style>
