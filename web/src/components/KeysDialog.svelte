<script lang="ts">
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
  import { STAGES } from '../stages';
  import { keys } from '../lib/keys.svelte';
  import { preferences } from '../lib/preferences.svelte';

  const KEYS = [
    [STAGES.map((_, at) => at + 1).join(' '), STAGES.map((stage) => stage.name).join(', ')],
    ['0', 'Now: what is known'],
    ['9', 'Logbook'],
    ['d', 'draw the bow'],
    ['f', 'findings: ↑ ↓ walk them, Enter does it, s shows the sum, e opens those elsewhere'],
    ['w', 'the next dotted word of the trade on the page; Enter opens it, Esc closes it'],
    ['j', 'jot line'],
    ['↓', 'in the jot line: take the next answer to what it asks'],
    ['Ctrl Z', 'take back what was recorded last'],
    ['Ctrl Shift Z', 'put back what was taken back last'],
    ['u', 'units'],
    ['?', 'this list'],
  ] as const;
</script>

<Dialog open={keys.helpOpen} onOpenChange={(details) => (keys.helpOpen = details.open)}>
  <Dialog.Trigger class="act px-3 max-sm:px-2" title="Keys and jot words (?)">
    <span aria-hidden="true">?</span><span class="max-lg:sr-only">Keys and words</span>
  </Dialog.Trigger>
  <Portal>
    <Dialog.Backdrop class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Positioner class="fixed inset-0 z-50 flex items-start justify-center overflow-auto p-4">
      <Dialog.Content class="w-full max-w-2xl rounded border border-line bg-raised p-6">
        <div class="flex items-start justify-between">
          <Dialog.Title class="text-xl font-bold">Keys and jot words</Dialog.Title>
          <Dialog.CloseTrigger class="act">Close</Dialog.CloseTrigger>
        </div>
        {#if keys.helpOpen}
          <dl class="mt-4 grid grid-cols-[6rem_1fr] gap-y-1">
            {#each KEYS as [key, does] (key)}
              <dt class="font-semibold">{key}</dt>
              <dd>{does}</dd>
            {/each}
          </dl>
          <label class="mt-3 flex min-h-9 items-center gap-2">
            <input
              type="checkbox"
              checked={preferences.keys}
              onchange={() => preferences.toggleKeys()}
            />
            single keys work outside of fields
          </label>
          <label class="flex min-h-9 items-center gap-2">
            <input
              type="checkbox"
              checked={preferences.unfolded}
              onchange={() => preferences.toggleFolds()}
            />
            what is folded on a page begins open
          </label>
          <h2 class="mt-6">The jot line</h2>
          <p class="mt-1">
            Type a reading the way you would say it, in any order: “my draw is 27 and a half”, “44
            lb at 28”, “arrow 4 cracked yesterday”. Add “here” for this rig only, and “?” for an
            estimate. Lengths in in, cm or mm; fractions as you like.
          </p>
          <p class="mt-2">
            <a class="underline" href="/words" onclick={() => (keys.helpOpen = false)}
              >All words, with what else they are called</a
            >. “Form” beside the line fills in any of them.
          </p>
        {/if}
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>
