<script lang="ts">
  import type { Assessment } from '../lib/api';
  import { goTo } from '../lib/go';
  import { tell } from '../lib/preferences.svelte';

  let {
    may,
    large = false,
  }: {
    may: Assessment['may_shoot'];
    /** On the page that says what is open anyway: the answer alone, and larger. */
    large?: boolean;
  } = $props();

  const COUNTS = ['', 'one', 'two', 'three', 'four', 'five', 'six'];
  const because = $derived(may.because.map((said) => tell(said).replace(/\.$/, '')));
  const mend = $derived(may.to_mend > 0 ? `, ${COUNTS[may.to_mend] ?? may.to_mend} to mend` : '');
</script>

<div
  class="line"
  class:large
  class:no={may.answer === 'no'}
  role={may.answer === 'no' ? 'alert' : undefined}
>
  <p>
    <span class="text-soft">May I shoot this?</span>
    {#if may.answer === 'no'}
      <strong class="text-red">No.</strong> {because[0]}.
    {:else if may.answer === 'not_yet'}
      <strong class="text-amber">Not yet:</strong> {because.join('; ')}.
    {:else}
      <strong class="text-green">Nothing known against it{mend}.</strong>
    {/if}
    {#if may.unchecked.length && may.answer !== 'no' && !large}
      <span class="text-soft">
        Not checked:
        {#each may.unchecked as open, at (open.what.template)}
          {at ? ', ' : ''}
          {@const action = open.action}
          {#if action}
            <button class="check" type="button" onclick={() => goTo(action)}
              >{tell(open.what)}</button
            >{:else}{tell(open.what)}{/if}{/each}.
      </span>
    {/if}
  </p>
  {#if may.answer === 'no'}
    {#each because.slice(1) as more (more)}<p class="mt-1">{more}.</p>{/each}
  {/if}
</div>

<style>
  .line {
    margin-bottom: 0.7rem;
    border-left: 5px solid var(--line);
    padding: 0.15rem 0.75rem;
    font-size: 0.95rem;
  }
  .large {
    font-size: 1.15rem;
  }
  .check {
    text-decoration: underline;
    text-underline-offset: 0.15em;
  }
  .no {
    border-left-color: var(--red);
    background: color-mix(in srgb, var(--red) 9%, var(--paper));
    padding: 0.5rem 0.75rem;
    font-size: 1rem;
  }
</style>
