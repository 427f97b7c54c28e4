<script lang="ts">
  import type { Attachment } from 'svelte/attachments';
  import type { Reading } from '../lib/reading.svelte';
  import { wanted } from '../lib/wanted';

  let {
    reading,
    name,
    form,
    label,
    placeholder,
    control = null,
    inputmode,
  }: {
    reading: Reading;
    /** The field of the reading. */
    name: string;
    /** Id of the form it stands in. */
    form: string;
    label: string;
    placeholder: string;
    /** Id that findings use to point here. */
    control?: string | null;
    inputmode?: 'numeric';
  } = $props();

  let input = $state<HTMLInputElement>();
  const nothing: Attachment<HTMLElement> = () => {};

  /** Put the cursor here. */
  export function focus(): void {
    input?.focus();
  }
</script>

<div class="min-w-0">
  <label class="label block" for="field-{form}-{name}">{label}</label>
  <input
    bind:this={input}
    {@attach control === null ? nothing : wanted(control)}
    id="field-{form}-{name}"
    class="field"
    autocomplete="off"
    {placeholder}
    {inputmode}
    value={reading.fields[name]}
    oninput={(event) => reading.set({ [name]: event.currentTarget.value })}
    aria-invalid={reading.wrong === name ? 'true' : undefined}
    aria-describedby="{form}-says"
  />
</div>
