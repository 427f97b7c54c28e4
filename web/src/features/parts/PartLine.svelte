<script lang="ts">
  import { tick } from 'svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import type { PartOut } from '../../lib/api';
  import { Naming } from '../../lib/naming.svelte';
  import { placePath } from '../../lib/paths';
  import { tell } from '../../lib/preferences.svelte';

  let { part, renamed }: { part: PartOut; renamed: () => Promise<unknown> } = $props();

  const naming = new Naming();
  let open = $state(false);
  let opener = $state<HTMLButtonElement>();
  let field = $state<HTMLInputElement>();
  const COLOURS = {
    failing: 'text-red font-semibold',
    sound: '',
    partly: 'text-soft',
    not_looked: 'text-soft',
  } as const;

  async function begin() {
    naming.clear();
    naming.text = part.name;
    open = true;
    await tick();
    field?.select();
  }

  async function close() {
    open = false;
    await tick();
    opener?.focus();
  }

  async function give(alike: boolean) {
    if (!(await naming.give({ kind: part.kind, id: part.id }, alike))) return;
    await renamed();
    await close();
  }

  function submit(event: SubmitEvent) {
    event.preventDefault();
    if (naming.text.trim() === part.name) void close();
    else void give(false);
  }
</script>

<li class="line">
  {#if open}
    <form class="min-w-0" onsubmit={submit}>
      <label class="sr-only" for="name-{part.id}">New name of {part.name}</label>
      <span class="flex flex-wrap gap-1">
        <input
          bind:this={field}
          id="name-{part.id}"
          class="field max-w-60"
          maxlength="60"
          autocomplete="off"
          bind:value={naming.text}
          onkeydown={(event) => event.key === 'Escape' && void close()}
          aria-invalid={naming.problem ? 'true' : undefined}
          aria-describedby={naming.problem ? `problem-name-${part.id}` : undefined}
        />
        <button class="act" disabled={!naming.text.trim() || naming.busy}>Rename</button>
        <button type="button" class="quiet px-1" onclick={close}>leave it</button>
      </span>
      {#if naming.problem}
        <ProblemNote
          problem={naming.problem}
          id="problem-name-{part.id}"
          insist={() => give(true)}
        />
      {/if}
    </form>
  {:else}
    <span class="min-w-0">
      <strong class="font-semibold">{part.name}</strong>
      {#if part.origin === 'demo'}<span class="text-sm text-soft">demo</span>{/if}
    </span>
  {/if}
  <span class="min-w-0">
    {#each part.on as on, index (on.rig)}
      {#if index}<br />{/if}
      <a class="underline" href={placePath(on.rig, 'archer')}>{on.name}</a>
      <span class="text-sm text-soft">
        {[part.kind !== 'archer' && on.archer, on.put_away && 'put away']
          .filter(Boolean)
          .join(', ')}
      </span>
    {:else}
      <span class="text-soft">on no rig</span>
    {/each}
  </span>
  <span class="min-w-0 {COLOURS[part.looked_over?.found ?? 'sound']}">
    {part.looked_over ? tell(part.looked_over.says) : ''}
  </span>
  <span class="acts text-sm">
    {#if !open}
      <button bind:this={opener} class="quiet" onclick={() => void begin()}>
        rename<span class="sr-only"> {part.name}</span>
      </button>
    {/if}
    {#if part.kind === 'bow'}
      <a class="quiet" href="/new/from-bow?bow={encodeURIComponent(part.id)}">
        new rig<span class="sr-only"> with {part.name}</span>
      </a>
    {/if}
  </span>
</li>

<style>
  .line {
    display: grid;
    grid-template-columns: minmax(0, 4fr) minmax(0, 5fr) minmax(0, 4fr) 8.5rem;
    gap: 0.2rem 1rem;
    align-items: baseline;
    border-bottom: 1px solid var(--faint);
    padding-block: 0.5rem;
  }
  .acts {
    display: flex;
    gap: 0.9rem;
    align-items: baseline;
    justify-content: flex-end;
  }
  @media (max-width: 767px) {
    .line {
      grid-template-columns: minmax(0, 1fr);
    }
    .acts {
      justify-content: flex-start;
    }
    .acts > * {
      padding-block: 0.3rem;
    }
  }
</style>
