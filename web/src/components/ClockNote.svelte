<script lang="ts">
  import { clock } from '../lib/clock.svelte';
  import { inWords, sayTime } from '../lib/days';
  import { placePath } from '../lib/paths';
  import { tell } from '../lib/preferences.svelte';

  let { rig }: { rig: string } = $props();

  const check = $derived(clock.check);
  const more = $derived(check ? check.future_count - check.future.length : 0);
</script>

{#if check?.behind && check.newest}
  <p class="mb-3 text-red" role="alert">
    This computer's clock says {inWords(check.now)}, {sayTime(check.now)}: that is before the newest
    entry here, of {inWords(check.newest)}. Set the clock first: what is recorded now would count as
    older than what stands.
  </p>
{/if}
{#if check && check.future_count > 0}
  <p class="mb-3 text-amber" role="status">
    {check.future_count === 1 ? 'One entry lies' : `${check.future_count} entries lie`} in the future
    and hold against all that is recorded until then:
    {#each check.future as entry, index (entry.id)}
      {index ? '; ' : ''}{tell(entry.says)} ({inWords(entry.happened_at)}){/each}{more > 0
      ? ` and ${more} more`
      : ''}.
    <a class="underline" href={placePath(rig, 'logbook')}>Take them back in the logbook</a> and record
    them for the right day.
  </p>
{/if}
{#if check?.long_ago && check.newest}
  <!-- on wide screens it stands beside the jot line -->
  <p class="mb-2 text-sm text-soft md:hidden">
    Recording for {inWords(check.now)}; the last entry is of {inWords(check.newest)}.
  </p>
{/if}
