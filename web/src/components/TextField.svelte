<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';

  /** A field with its label; what is wrong with it stands below. */
  let {
    id,
    label,
    value = $bindable(),
    wrong = false,
    children,
    ...rest
  }: {
    id: string;
    label: string;
    value: string;
    wrong?: boolean;
    /** The problem, or what the field says. */
    children?: Snippet;
  } & HTMLInputAttributes = $props();
</script>

<div class="min-w-0">
  <label class="label block" for={id}>{label}</label>
  <input
    {id}
    class="field"
    autocomplete="off"
    bind:value
    aria-invalid={wrong ? 'true' : undefined}
    {...rest}
  />
  {@render children?.()}
</div>
