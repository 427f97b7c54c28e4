<script lang="ts" generics="V extends string | null">
  import type { Snippet } from 'svelte';

  /** One of a few, each in sight: arrows choose among them, a tap takes one. */
  let {
    legend,
    options,
    value,
    onchoose,
    drawn,
    hidden = false,
  }: {
    legend: string;
    options: readonly (readonly [V, string])[];
    value: V;
    onchoose: (value: V) => void;
    /** A small drawing before each name. */
    drawn?: Snippet<[V]>;
    /** True where the legend stands elsewhere already. */
    hidden?: boolean;
  } = $props();

  const id = $props.id();
</script>

<fieldset>
  <legend class={hidden ? 'sr-only' : 'label mb-1'}>{legend}</legend>
  <div class="flex flex-wrap gap-1.5">
    {#each options as [option, name] (option)}
      <label class="choice" class:chosen={option === value} class:tall={drawn}>
        <input
          type="radio"
          name={id}
          class="sr-only"
          checked={option === value}
          onchange={() => onchoose(option)}
        />
        {@render drawn?.(option)}
        {name}
      </label>
    {/each}
  </div>
</fieldset>

<style>
  .choice {
    position: relative;
    display: inline-flex;
    align-items: center;
    gap: 0.4rem;
    min-height: 2rem;
    border: 1px solid var(--line);
    border-radius: 3px;
    background: var(--raised);
    padding: 0.2rem 0.6rem;
    font-size: 0.93rem;
    cursor: pointer;
  }
  .tall {
    flex-direction: column;
    justify-content: center;
    gap: 0.1rem;
    min-width: 6.6rem;
    padding-inline: 0.4rem;
  }
  .choice:hover {
    background: var(--faint);
  }
  .chosen {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
    font-weight: 600;
  }
  .choice:focus-within {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
  @media (max-width: 767px), (pointer: coarse) {
    .choice {
      min-height: 44px;
    }
  }
</style>
