<script lang="ts">
  import type { Stage } from '../lib/api';

  let {
    mark,
    stop = false,
    size = 12,
  }: { mark: Stage['mark']; stop?: boolean; size?: number } = $props();

  const WORDS = {
    unset: 'not set',
    estimated: 'estimated',
    settled: 'settled',
    in_doubt: 'in doubt',
    rests: 'rests on a doubt',
    waits: 'waits',
  } as const;
</script>

<svg
  width={size}
  height={size}
  viewBox="-7 -7 14 14"
  role="img"
  aria-label={stop ? `Stop, ${WORDS[mark]}` : WORDS[mark]}
  class="shrink-0"
>
  {#if stop}
    <path d="M0-7 7 0 0 7-7 0Z" fill="var(--red)" />
    <path d="M-3.4 0H3.4" stroke="var(--paper)" stroke-width="2.2" />
  {:else if mark === 'in_doubt'}
    <path d="M0-6 6 0 0 6-6 0Z" fill="none" stroke="var(--amber)" stroke-width="1.5" />
    <path d="M-4 1 1-4M-2.5 2.5 2.5-2.5M-1 4 4-1" stroke="var(--amber)" stroke-width="1.3" />
  {:else if mark === 'rests'}
    <path d="M0-6 6 0 0 6-6 0Z" fill="none" stroke="var(--amber)" stroke-width="1.5" />
    <path d="M-2.6 2.6 2.6-2.6" stroke="var(--amber)" stroke-width="1.6" />
  {:else if mark === 'waits'}
    <path
      d="M0-6 6 0 0 6-6 0Z"
      fill="none"
      stroke="var(--blue)"
      stroke-width="1.6"
      stroke-dasharray="1.6 1.8"
    />
  {:else}
    <path d="M0-6 6 0 0 6-6 0Z" fill="none" stroke="var(--ink)" stroke-width="1.5" />
    {#if mark === 'settled'}
      <path d="M0-6 6 0 0 6-6 0Z" fill="var(--ink)" />
    {:else if mark === 'estimated'}
      <path d="M0-6-6 0 0 6Z" fill="var(--ink)" />
    {/if}
  {/if}
</svg>
