<script lang="ts">
  import type { Finding } from '../lib/api';
  import { tell } from '../lib/preferences.svelte';
  import Told from './Told.svelte';

  let { finding }: { finding: Finding } = $props();
</script>

<ol class="mt-2 rounded bg-faint px-3 py-2 text-sm text-ink">
  {#each finding.sum as line, index (index)}
    <li><Told text={tell(line)} /></li>
  {/each}
  <li class="mt-1">
    <a class="underline" href="/rules#{finding.rule}">the rule and where it comes from</a>
  </li>
</ol>
