<script lang="ts">
  import { preferences } from '../lib/preferences.svelte';
  import { UNIT_SETS } from '../lib/units';
  import KeysDialog from './KeysDialog.svelte';
</script>

<div class="ml-auto flex items-center gap-1 sm:gap-3">
  <button
    class="min-h-9 px-1 whitespace-nowrap text-soft hover:text-ink"
    onclick={() => preferences.nextUnits()}
    title="Change units (u)"
  >
    <span class="sr-only">Units: </span>{UNIT_SETS[preferences.units]}
  </button>
  <button
    class="min-h-9 px-1 text-soft hover:text-ink"
    onclick={() => preferences.toggleTheme()}
    title="Change light or dark"
  >
    {preferences.theme === 'dark' ? 'Light' : 'Dark'}<span class="sr-only"> theme</span>
  </button>
  <KeysDialog />
</div>
