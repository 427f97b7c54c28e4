<script lang="ts">
  let { verdict }: { verdict: 'fits' | 'near' | 'no' | 'silent' } = $props();

  const WORDS = { fits: 'fits', near: 'near', no: 'no', silent: 'does not speak of it' } as const;
</script>

<svg width="14" height="14" viewBox="0 0 14 14" role="img" aria-label={WORDS[verdict]}>
  {#if verdict === 'fits'}
    <circle cx="7" cy="7" r="5.5" fill="var(--green)" />
  {:else if verdict === 'near'}
    <circle cx="7" cy="7" r="5" fill="none" stroke="var(--green)" stroke-width="1.6" />
    <path d="M7 2a5 5 0 0 1 0 10Z" fill="var(--green)" />
  {:else if verdict === 'no'}
    <path d="M3 3l8 8m0-8-8 8" stroke="var(--soft)" stroke-width="1.6" />
  {:else}
    <path d="M4 7h6" stroke="var(--soft)" stroke-width="1.6" />
  {/if}
</svg>

<style>
  svg {
    display: inline-block;
    vertical-align: -2px;
  }
</style>
