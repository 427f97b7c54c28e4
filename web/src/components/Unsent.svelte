<script lang="ts">
  import { recorder } from '../lib/recorder.svelte';
  import type { Job } from '../lib/outbox.svelte';
  import type { Typing } from '../lib/typing.svelte';

  let {
    typing,
    beside = [],
    lost = [],
  }: {
    /** The fields whose lines are on their way, or came back while something else stood there. */
    typing: Typing;
    /** On their way from controls that are not on this page. */
    beside?: Job[];
    /** Refused, and their control is not on this page. */
    lost?: Job[];
  } = $props();

  const waiting = $derived([...typing.waiting, ...beside]);
  const refused = $derived([...typing.refused, ...lost]);
</script>

{#if waiting.length}
  <p class="text-sm text-soft" class:soon={!recorder.outbox.stuck} role="status">
    {#if recorder.outbox.stuck}
      <span class="text-red">Lyrandis does not answer.</span> Kept, and sent when it does:
    {:else}
      Recording:
    {/if}
    {waiting.map((job) => job.says).join('; ')}
  </p>
{/if}
{#each refused as job (job.key)}
  <p class="text-sm text-red" role="alert">
    Not recorded: {job.says}. {job.problem?.reason}
    {job.problem?.instruction}
    {#if job.from === typing.from}
      <button type="button" class="quiet text-ink" onclick={() => typing.takeUp(job)}>
        edit it
      </button>
    {/if}
    <button type="button" class="quiet text-ink" onclick={() => recorder.outbox.drop(job.key)}>
      leave it out
    </button>
  </p>
{/each}

<style>
  /* an answer that comes at once needs no word */
  .soon {
    animation: soon 0s linear 0.3s both;
  }
  @keyframes soon {
    from {
      visibility: hidden;
      position: absolute;
    }
  }
</style>
