<script lang="ts">
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TextField from '../../components/TextField.svelte';
  import { goToPath } from '../../lib/navigation';
  import { nowPath } from '../../lib/paths';
  import type { FirstRun } from './first-run.svelte';

  /** The names are asked last: both may be left empty. */
  let { run, open = $bindable() }: { run: FirstRun; open: boolean } = $props();

  async function make(alike = false) {
    const rig = await run.make(alike);
    if (!rig) return;
    open = false;
    await goToPath(nowPath(rig));
  }

  function whoIs(answer: string) {
    run.whoIs(answer);
    void make();
  }
  const wrong = (field: string) => (run.problem?.field === field ? run.problem.problem : null);
</script>

<Dialog {open} onOpenChange={(details) => (open = details.open)}>
  <Portal>
    <Dialog.Backdrop class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Positioner class="fixed inset-0 z-50 flex items-start justify-center overflow-auto p-4">
      <Dialog.Content class="mt-[8vh] w-full max-w-md rounded border border-line bg-raised p-6">
        <Dialog.Title class="text-xl font-bold">What shall they be called?</Dialog.Title>
        {#if open}
          <form
            class="mt-4 grid gap-4"
            onsubmit={(event) => {
              event.preventDefault();
              void make();
            }}
          >
            <TextField
              id="first-name"
              label="Your name, if you like"
              maxlength={60}
              placeholder="Archer"
              bind:value={run.answers.archerName}
              wrong={wrong('name') !== null}
              aria-describedby={wrong('name') ? 'problem-name' : undefined}
            >
              {#if wrong('name')}
                {@const problem = wrong('name')}
                {#if problem}<ProblemNote {problem} id="problem-name" onguess={whoIs} />{/if}
              {/if}
            </TextField>
            <TextField
              id="first-rig"
              label="The rig’s name, if you like"
              maxlength={60}
              placeholder={run.bowName}
              bind:value={run.answers.rigName}
            />
            {#if wrong('rig')}
              {@const problem = wrong('rig')}
              {#if problem}
                <ProblemNote {problem} id="problem-rig" insist={() => make(true)} />
              {/if}
            {/if}
            <div class="flex items-center gap-4">
              <button class="act act-strong" disabled={run.busy}>Make it</button>
              <Dialog.CloseTrigger class="quiet">Back</Dialog.CloseTrigger>
            </div>
          </form>
        {/if}
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>
