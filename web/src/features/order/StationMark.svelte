<script lang="ts">
  import RailMark from '../../components/RailMark.svelte';
  import type { Station } from '../../lib/api';

  let { mark }: { mark: Station['mark'] } = $props();

  const AS = {
    unset: 'unset',
    settled: 'settled',
    off: 'in_doubt',
    direct: 'in_doubt',
    rests: 'rests',
    waits: 'waits',
  } as const;
</script>

<RailMark mark={AS[mark]} />
