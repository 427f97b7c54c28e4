<script lang="ts">
  import { untrack } from 'svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import Unsent from '../../components/Unsent.svelte';
  import type { Assessment, PageOf } from '../../lib/api';
  import { inWords } from '../../lib/days';
  import { fittedId } from '../../lib/values';
  import { wanted } from '../../lib/wanted';
  import { LookOver } from './inspection.svelte';

  let {
    assessment,
    items,
  }: { assessment: Assessment; items: PageOf<'bow'>['condition']['items'] } = $props();

  const look = untrack(() => new LookOver(items));
  const bow = $derived(fittedId(assessment, 'bow'));
  const day = (at: string | null | undefined) => (at ? inWords(at) : 'not looked at yet');

  function submit(event: SubmitEvent) {
    event.preventDefault();
    look.record(assessment);
  }
</script>

{#if !bow}
  <p class="mt-1 text-soft">No bow is fitted. Fit one first, under Fitted now.</p>
{:else}
  <form onsubmit={submit} {@attach wanted('inspection')} tabindex="-1">
    <ul class="mt-1">
      {#each items as item (item.item)}
        <li>
          <span class="min-w-0">
            {item.good_words[0]?.toUpperCase()}{item.good_words.slice(1)}
            <span class="block text-sm">
              {#if item.good === false}
                <strong class={item.severity === 'stop' ? 'text-red' : 'text-amber'}>
                  {item.failing_words}</strong
                >,
              {:else if item.good}
                <span class="text-green">good</span>,
              {/if}
              <span class="text-soft">{day(item.looked_at)}</span>
            </span>
          </span>
          <span class="whitespace-nowrap">
            {#each [['good', 'good'], ['failing', 'not right']] as const as [found, words] (found)}
              <button
                type="button"
                class="found"
                class:bad={found === 'failing'}
                aria-pressed={look.fields[item.item] === found}
                aria-label="{item.good_words}: {words}"
                onclick={() => look.mark(item.item, found)}
              >
                {words}
              </button>
            {/each}
          </span>
        </li>
      {/each}
    </ul>
    <div class="mt-3 flex flex-wrap items-center gap-3">
      <button type="button" class="act" onclick={() => look.all(items)}>The rest is good</button>
      <button class="act" class:act-strong={look.count} disabled={!look.count}>
        Record {look.count || ''}
      </button>
    </div>
    {#if look.problem}<ProblemNote problem={look.problem} id="problem-inspection" />{/if}
    <Unsent typing={look} />
    <p class="mt-2 text-sm text-soft">
      What can let go at full draw is Stop until you look again and find it good. In doubt, ask a
      bowyer.
    </p>
  </form>
{/if}

<style>
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 1rem;
    border-bottom: 1px solid var(--line);
    padding: 0.4rem 0;
  }
  .found {
    min-height: 2.25rem;
    border: 1px solid var(--line);
    padding: 0.2rem 0.6rem;
    font-size: 0.9rem;
  }
  .found:first-child {
    border-radius: 4px 0 0 4px;
  }
  .found:last-child {
    border-left: 0;
    border-radius: 0 4px 4px 0;
  }
  .found[aria-pressed='true'] {
    background: var(--green);
    border-color: var(--green);
    color: var(--on-ink);
    font-weight: 600;
  }
  .found.bad[aria-pressed='true'] {
    background: var(--red);
    border-color: var(--red);
  }
</style>
