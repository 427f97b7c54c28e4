<script lang="ts" module>
  import type { Finding } from '../lib/api';

  /** How each severity looks and is called. */
  export const LOOK: Record<Finding['severity'], { word: string; width: number; colour: string }> =
    {
      stop: { word: 'Stop', width: 44, colour: 'var(--red)' },
      mend: { word: 'Mend', width: 26, colour: 'var(--amber)' },
      watch: { word: 'Watch', width: 15, colour: 'var(--blue)' },
      good: { word: 'Good', width: 6, colour: 'var(--green)' },
    };
</script>

<script lang="ts">
  let { severity }: { severity: Finding['severity'] } = $props();

  const look = $derived(LOOK[severity]);
</script>

<svg width="44" height="5" class="block" aria-hidden="true">
  <rect width={look.width} height="5" rx="1" fill={look.colour} />
</svg>
