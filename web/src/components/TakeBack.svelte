<script lang="ts">
  import { bench } from '../lib/bench.svelte';

  let { entry, what }: { entry: string; what: string } = $props();
</script>

<button
  class="quiet text-sm whitespace-nowrap"
  disabled={bench.isTaking(entry)}
  onclick={() => void bench.takeBack(entry, what)}
>
  take back<span class="sr-only"> {what}</span>
</button>
