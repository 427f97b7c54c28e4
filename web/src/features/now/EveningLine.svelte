<script lang="ts">
  import type { Known } from '../../lib/api';
  import { goTo } from '../../lib/go';

  /** The first evening as one line of minutes. */
  let { evening, minutes }: { evening: Known['evening']; minutes: number } = $props();

  const STATES = { done: 'done', next: 'next', to_do: 'to do', aside: 'not now' } as const;
</script>

<section aria-labelledby="evening">
  <h2 id="evening">
    {minutes
      ? `Your first evening: ${minutes} minutes, in this order`
      : 'Your first evening is done'}
  </h2>
  <ol class="line mt-2">
    {#each evening as step (step.key)}
      <li class={step.state}>
        <svg width="16" height="16" viewBox="-8 -8 16 16" aria-hidden="true" class="station">
          <path d="M0-6 6 0 0 6-6 0Z" />
        </svg>
        <span class="name">
          {#if step.action}
            {@const action = step.action}
            <button class="go" onclick={() => goTo(action)}>{step.name}</button>
          {:else}
            {step.name}
          {/if}
        </span>
        <span class="text-sm text-soft">
          {step.state === 'done' || step.state === 'aside'
            ? STATES[step.state]
            : `${step.minutes} min`}{#if step.state === 'next'}<span class="sr-only">, next</span
            >{/if}
        </span>
      </li>
    {/each}
  </ol>
</section>

<style>
  .line {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: minmax(0, 1fr);
  }
  li {
    position: relative;
    padding-right: 0.6rem;
    font-size: 0.93rem;
    line-height: 1.25;
  }
  /* the way to the next station: gone along, or still to go */
  li:not(:last-child)::after {
    content: '';
    position: absolute;
    top: 7px;
    left: 16px;
    right: 0;
    border-top: 2px dotted var(--line);
  }
  li.done:not(:last-child)::after {
    border-top: 2px solid var(--ink);
  }
  .station {
    display: block;
    margin-bottom: 0.35rem;
  }
  .station path {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .done .station path {
    fill: var(--ink);
  }
  .aside .station path {
    stroke-dasharray: 2 2;
  }
  .name {
    display: block;
  }
  .next .name {
    font-weight: 600;
  }
  .go {
    text-align: left;
    text-decoration: underline dotted var(--line);
    text-underline-offset: 3px;
  }
  @media (max-width: 767px) {
    .line {
      grid-auto-flow: row;
    }
    li {
      display: grid;
      grid-template-columns: 1.6rem 1fr auto;
      align-items: center;
      min-height: 44px;
    }
    li:not(:last-child)::after {
      top: 30px;
      bottom: -14px;
      left: 7px;
      right: auto;
      border-top: 0;
      border-left: 2px dotted var(--line);
    }
    li.done:not(:last-child)::after {
      border-top: 0;
      border-left: 2px solid var(--ink);
    }
    .station {
      margin: 0;
    }
    .go {
      min-height: 44px;
    }
  }
</style>
