<script lang="ts">
  import { recorder } from '../lib/recorder.svelte';

  let { entry, what }: { entry: string; what: string } = $props();
</script>

<button
  class="quiet text-sm whitespace-nowrap"
  disabled={recorder.isTaking(entry)}
  onclick={() => void recorder.takeBack(entry, what)}
>
  take back<span class="sr-only"> {what}</span>
</button>
