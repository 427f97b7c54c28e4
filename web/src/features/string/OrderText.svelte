<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import { tell } from '../../lib/preferences.svelte';
  import type { Phrase } from '../../lib/units';

  let { lines }: { lines: Phrase[] } = $props();

  let said = $state('');
  const text = $derived(lines.map((line) => tell(line)).join('\n'));

  async function copy() {
    try {
      await navigator.clipboard.writeText(text.replace(/[\u00a0\u202f]/g, ' '));
      said = 'Copied.';
    } catch {
      said = 'The browser does not let it be copied: mark the text and copy it.';
    }
  }
</script>

<section aria-labelledby="order-this">
  <h2 id="order-this">Order this one</h2>
  <pre class="mt-1 border border-line bg-raised p-3 font-sans whitespace-pre-wrap">{text}</pre>
  <div class="mt-2 flex items-center gap-3">
    <button class="act" onclick={copy}><Copy size={16} aria-hidden="true" /> Copy</button>
    <span class="text-sm text-soft" role="status">{said}</span>
  </div>
</section>
