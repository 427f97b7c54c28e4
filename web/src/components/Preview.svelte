<script lang="ts">
  import type { ParsedJot } from '../lib/api';
  import { inWords } from '../lib/days';
  import { preferences } from '../lib/preferences.svelte';
  import { otherUnits, say, sayPhrase } from '../lib/units';

  let { parsed, where = false }: { parsed: ParsedJot; where?: boolean } = $props();

  const other = $derived(
    Object.values(parsed.says.figures ?? {})
      .map((figure) => [say(figure, otherUnits(preferences.units)), say(figure, preferences.units)])
      .filter(([other, own]) => other !== own)
      .map(([other]) => other)
      .join(', '),
  );
</script>

<span class="text-sm text-green">
  {sayPhrase(parsed.says, preferences.units)}{parsed.source === 'estimated'
    ? ', an estimate'
    : ''}{parsed.sum ? `: ${sayPhrase(parsed.sum, preferences.units)}` : ''}
  {#if other}<span class="text-soft">({other})</span>{/if}
  {#if parsed.day}<span>for {inWords(`${parsed.day}T12:00`)}</span>{/if}
  {#if where && parsed.subject_name}<span class="text-soft">for {parsed.subject_name}</span>{/if}
</span>
