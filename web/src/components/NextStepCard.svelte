<script lang="ts">
  import type { NextStep } from '../lib/api';
  import { goTo } from '../lib/go';
  import { tell } from '../lib/preferences.svelte';

  let { step }: { step: NextStep } = $props();
</script>

<section aria-labelledby="next-title" class="card rounded bg-ink p-4 text-on-ink">
  <p class="text-sm opacity-80">Next step</p>
  <h2 id="next-title" class="text-[1.2rem] leading-tight font-bold text-on-ink">
    {tell(step.title)}
  </h2>
  <p class="mt-2">{tell(step.why)}</p>
  {#if step.tells.template}<p class="mt-1 opacity-90">{tell(step.tells)}</p>{/if}
  <div class="mt-3 flex items-center justify-between gap-3">
    <button
      class="min-h-9 rounded bg-paper px-3 font-semibold text-ink"
      onclick={() => goTo(step.action)}
    >
      {step.action.label}
    </button>
    <span class="text-sm whitespace-nowrap opacity-80">{step.minutes} min</span>
  </div>
</section>

<style>
  .card :global(:focus-visible) {
    outline-color: var(--on-ink);
  }
  h2 {
    font-size: 1.2rem;
  }
</style>
