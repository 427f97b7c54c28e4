<script lang="ts">
  import type { Station } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';

  let { station }: { station: Station } = $props();

  const said = $derived.by(() => {
    const value = station.figure;
    if (!value) return station.word?.replaceAll('_', ' ') ?? '';
    if (station.node === 'settled')
      return value.value ? `up to ${figure(value)} to come` : 'as told';
    if (station.node === 'walk_back') return `${figure(value)} in 10 m`;
    if (station.node === 'riser_weights') return `${value.value.toFixed(0)} g`;
    return figure(value);
  });
</script>

{said}
