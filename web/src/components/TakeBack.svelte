<script lang="ts">
  import { bench } from '../lib/bench.svelte';

  let { entry, what }: { entry: string; what: string } = $props();
</script>

<button class="quiet text-sm" onclick={() => void bench.retract(entry, `Taken back: ${what}`)}>
  take back<span class="sr-only"> {what}</span>
</button>
