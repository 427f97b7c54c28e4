<script lang="ts">
  import type { Finding } from '../lib/api';
  import { goTo } from '../lib/go';
  import { tell } from '../lib/preferences.svelte';

  let {
    finding,
    said = false,
    asked = false,
  }: {
    finding: Finding;
    /** True when its sentence stands above already: here its sum is. */
    said?: boolean;
    /** True when it is the next step, whose card has its button. */
    asked?: boolean;
  } = $props();

  const LOOK = {
    stop: { word: 'Stop', width: 44, colour: 'var(--red)' },
    mend: { word: 'Mend', width: 26, colour: 'var(--amber)' },
    watch: { word: 'Watch', width: 15, colour: 'var(--blue)' },
    good: { word: 'Good', width: 6, colour: 'var(--green)' },
  } as const;
  const look = $derived(LOOK[finding.severity]);
  let toggled = $state<boolean | null>(null);
  const open = $derived(toggled ?? (said && finding.severity === 'stop'));
</script>

<li class="grid grid-cols-[3.4rem_1fr] gap-x-2 border-b border-line py-3">
  <span style:color={look.colour} class="text-sm font-semibold">
    <svg width="44" height="5" class="mb-1 block" aria-hidden="true">
      <rect width={look.width} height="5" rx="1" fill={look.colour} />
    </svg>
    {look.word}
  </span>
  <div class="min-w-0">
    <p>{said && finding.title ? finding.title : tell(finding.sentence)}</p>
    <p class="mt-1 flex flex-wrap gap-x-4">
      <button class="quiet text-sm" aria-expanded={open} onclick={() => (toggled = !open)}>
        {open ? 'hide the sum' : 'show the sum'}
      </button>
      {#if finding.action && !asked}
        {@const action = finding.action}
        <button class="quiet text-sm text-ink" onclick={() => goTo(action)}>{action.label}</button>
      {/if}
    </p>
    {#if open}
      <ol class="mt-2 rounded bg-faint px-3 py-2 text-sm">
        {#each finding.sum as line, index (index)}
          <li>{tell(line)}</li>
        {/each}
        <li class="mt-1">
          <a class="underline" href="/rules#{finding.rule}">the rule and where it comes from</a>
        </li>
      </ol>
    {/if}
  </div>
</li>
