<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { LogbookBrought } from '../../lib/api';
  import { placePath } from '../../lib/paths';
  import { goToPath } from '../../lib/navigation';
  import { LogbookFile } from './logbook-file.svelte';

  /** `brought` is called when something came in that is about no rig in particular. */
  let { brought }: { brought: () => unknown } = $props();

  const file = new LogbookFile();
  const entries = (count: number) => (count === 1 ? '1 entry' : `${count} entries`);

  /** What the file would bring, in words. */
  function says(found: LogbookBrought): string {
    const fresh = found.parts.filter((part) => part.new).map((part) => part.name);
    const said = [found.new ? `${entries(found.new)} to record` : 'Nothing in it is new'];
    if (found.already) said.push(`${entries(found.already)} here already`);
    if (found.left_out) said.push(`${found.left_out} taken back here already`);
    return `${said.join(', ')}.${fresh.length ? ` New on this bench: ${fresh.join(', ')}.` : ''}`;
  }

  const alike = $derived(file.data?.parts.filter((part) => part.alike).map((part) => part.name));

  async function bring() {
    const found = await file.bring();
    if (!found) return;
    if (found.rig) await goToPath(placePath(found.rig, 'logbook'));
    else brought();
  }
</script>

<section aria-labelledby="bring-title">
  <h2 id="bring-title">A saved logbook</h2>
  <label class="act file mt-1">
    Open a logbook file
    <input
      type="file"
      accept=".json,application/json"
      onchange={(event) => {
        void file.take(event.currentTarget.files?.[0]);
        event.currentTarget.value = '';
      }}
    />
  </label>
  <div class="mt-2" aria-live="polite">
    {#if file.unread}
      <ProblemNote problem={file.unread} id="problem-logbook-file" />
    {:else if file.problem}
      <ProblemNote problem={file.problem} id="problem-logbook-look" />
    {:else if file.busy}
      <p class="text-soft">Reading {file.name}…</p>
    {:else if file.data}
      <p><strong class="font-semibold">{file.name}.</strong> {says(file.data)}</p>
      {#if alike?.length}
        <p class="text-sm text-soft">
          Another one is called {alike.join(', ')} here: they stay apart, and can be renamed under Parts.
        </p>
      {/if}
      {#if file.data.new}
        <button class="act act-strong mt-2" disabled={file.brought.busy} onclick={bring}>
          Bring it in
        </button>
      {:else if file.data.rig}
        <a class="act mt-2" href={placePath(file.data.rig, 'logbook')}>Open its logbook</a>
      {/if}
      {#if file.brought.problem}
        <ProblemNote problem={file.brought.problem} id="problem-logbook-bring" />
      {/if}
    {/if}
  </div>
</section>

<style>
  .file {
    position: relative;
    cursor: pointer;
  }
  .file input {
    position: absolute;
    width: 1px;
    height: 1px;
    opacity: 0;
  }
  .file:focus-within {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
</style>
