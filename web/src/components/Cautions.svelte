<script lang="ts">
  import type { Stage } from '../lib/api';

  let { stage }: { stage: Stage } = $props();
</script>

<section aria-label="Cautions" class="mt-6 border-t border-line pt-3 text-sm text-soft">
  {#each stage.cautions ?? [] as caution (caution.id)}
    <p class="mt-1">{caution.text}</p>
  {/each}
</section>
