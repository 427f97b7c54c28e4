<script lang="ts">
  let { count }: { count: number } = $props();
</script>

{#if count > 0}
  <p class="mt-1 text-sm text-soft">And {count} older, in the logbook.</p>
{/if}
