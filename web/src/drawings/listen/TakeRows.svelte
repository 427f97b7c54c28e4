<script lang="ts" module>
  import type { Trace } from '../../lib/api';

  /** One take as a line of the drawing. */
  export interface TakeLine {
    number: number;
    trace: Trace | null;
    struck: boolean;
    /** What stands behind it, in words. */
    says: string;
    spikes: readonly number[];
    blow: number | null;
  }
</script>

<script lang="ts">
  import { slid } from '../keys';
  import { across, FROM_MS, TO_MS, waveOf } from './trace';
  import { dragged } from '../dragged';

  let {
    lines,
    label,
    chosen = null,
    moved = 0,
    onchoose,
    onmove,
    onstrike,
  }: {
    lines: TakeLine[];
    /** What stands at the left, such as before or after. */
    label: string;
    chosen?: number | null;
    /** How far the chosen take's onset is held from where it is heard [ms]. */
    moved?: number;
    onchoose?: (number: number) => void;
    onmove?: (ms: number, letGo: boolean) => void;
    onstrike?: (number: number) => void;
  } = $props();

  let width = $state(640);
  const W = $derived(Math.max(width, 100));
  const H = 26;
  const MOST_MS = 15;
  let list = $state<HTMLOListElement>();

  /** The drawn line in words. */
  function spoken(line: TakeLine): string {
    const clicks = line.spikes.length;
    return [
      `Take ${line.number}: ${line.says}`,
      clicks ? `${clicks} click${clicks === 1 ? '' : 's'} while it rings` : 'no clicks',
      ...(line.blow === null ? [] : [`the arrow strikes at ${Math.round(line.blow)} ms`]),
      ...(line.struck ? ['struck out'] : []),
    ].join(', ');
  }
  function drag(x: number) {
    const ms = FROM_MS + (x / W) * (TO_MS - FROM_MS);
    onmove?.(Math.min(Math.max(ms, -MOST_MS), MOST_MS), false);
  }
  function key(event: KeyboardEvent) {
    const to = slid(event, { now: moved, step: 0.1, page: 1, low: -MOST_MS, high: MOST_MS });
    if (to !== null) onmove?.(Math.round(to * 10) / 10, true);
  }
  /** Up and down walk through the takes, x strikes out or puts back. */
  function walk(event: KeyboardEvent, at: number) {
    const line = lines[at];
    if (event.key === 'x' && line) onstrike?.(line.number);
    const to = event.key === 'ArrowDown' ? at + 1 : event.key === 'ArrowUp' ? at - 1 : null;
    const next = to === null ? undefined : lines[to];
    if (!next) return;
    event.preventDefault();
    onchoose?.(next.number);
    list?.querySelectorAll<HTMLElement>('button.number')[to ?? 0]?.focus();
  }
</script>

<div class="group">
  <p class="side">{label}</p>
  <ol bind:this={list}>
    {#each lines as line, at (line.number)}
      <li class:chosen={line.number === chosen} class:struck={line.struck}>
        <button
          class="number"
          aria-pressed={line.number === chosen}
          aria-label={spoken(line)}
          onclick={() => onchoose?.(line.number)}
          onkeydown={(event) => walk(event, at)}>{line.number}</button
        >
        <div class="wave-box" bind:clientWidth={width}>
          <svg viewBox="0 0 {W} {H}" aria-hidden={line.number !== chosen}>
            {#if line.trace}
              <path class="wave" d={waveOf(line.trace, W, H)} />
            {:else}
              <line class="none" x1="0" x2={W} y1={H / 2} y2={H / 2} />
            {/if}
            {#each line.spikes as spike, n (n)}
              {#if spike < TO_MS}
                <line class="spike" x1={across(spike, W)} x2={across(spike, W)} y1="1" y2="6" />
              {/if}
            {/each}
            <line class="home" x1={across(0, W)} x2={across(0, W)} y1="0" y2={H} />
            {#if line.blow !== null && line.blow < TO_MS}
              <line
                class="blow"
                x1={across(line.blow, W)}
                x2={across(line.blow, W)}
                y1="0"
                y2={H}
              />
            {/if}
            {#if line.number === chosen && onmove}
              <g
                class="handle"
                role="slider"
                tabindex="0"
                aria-label="Onset of take {line.number}, in milliseconds beside where it is heard"
                aria-valuemin={-MOST_MS}
                aria-valuemax={MOST_MS}
                aria-valuenow={moved}
                {...dragged((at) => drag(at.x))}
                onpointerup={() => onmove?.(Math.round(moved * 10) / 10, true)}
                onkeydown={key}
              >
                <rect x={across(moved, W) - 14} y="0" width="28" height={H} fill="transparent" />
                <line x1={across(moved, W)} x2={across(moved, W)} y1="0" y2={H} />
                <circle cx={across(moved, W)} cy={H / 2} r="5" />
              </g>
            {/if}
          </svg>
        </div>
        <span class="says"
          >{line.struck ? 'struck out' : line.says}{#if onstrike}
            <button class="quiet" onclick={() => onstrike(line.number)}
              >{line.struck ? 'put back' : 'strike out'}</button
            >{/if}</span
        >
      </li>
    {/each}
  </ol>
</div>

<style>
  .group {
    display: grid;
    grid-template-columns: 4.2rem minmax(0, 1fr);
    align-items: start;
  }
  .side {
    font-size: 0.87rem;
    font-weight: 600;
    padding-top: 0.25rem;
  }
  li {
    display: grid;
    grid-template-columns: 1.9rem minmax(0, 1fr) 11.5rem;
    align-items: center;
    gap: 0.4rem;
  }
  .chosen {
    background: var(--raised);
  }
  .number {
    min-height: 1.75rem;
    font-weight: 600;
    text-align: right;
  }
  svg {
    display: block;
    width: 100%;
    height: 26px;
    overflow: visible;
  }
  .wave {
    fill: var(--ink);
    stroke: var(--ink);
    stroke-width: 0.5;
  }
  .struck .wave {
    fill: var(--soft);
    stroke: var(--soft);
    opacity: 0.35;
  }
  .struck .number {
    color: var(--soft);
    text-decoration: line-through;
    font-weight: 400;
  }
  .none {
    stroke: var(--line);
    stroke-dasharray: 4 4;
  }
  .home {
    stroke: var(--soft);
    stroke-dasharray: 5 3 1 3;
  }
  .spike {
    stroke: var(--amber);
    stroke-width: 2;
  }
  .blow {
    stroke: var(--blue);
    stroke-dasharray: 2 2;
  }
  .handle {
    cursor: ew-resize;
    touch-action: none;
  }
  .handle line {
    stroke: var(--red);
    stroke-width: 1.5;
  }
  .handle circle {
    fill: var(--red);
    stroke: var(--paper);
    stroke-width: 1.5;
  }
  .says .quiet {
    opacity: 0;
  }
  li:hover .quiet,
  li:focus-within .quiet,
  .chosen .quiet,
  .struck .quiet {
    opacity: 1;
  }
  .says {
    font-size: 0.8rem;
    color: var(--soft);
    display: flex;
    justify-content: space-between;
    gap: 0.5rem;
    white-space: nowrap;
  }
  @media (max-width: 640px) {
    .group {
      grid-template-columns: minmax(0, 1fr);
    }
    li {
      grid-template-columns: 1.6rem minmax(0, 1fr) auto;
    }
    .says {
      display: block;
      font-size: 0;
    }
    .says .quiet {
      font-size: 0.8rem;
      min-height: 2.4rem;
    }
  }
</style>
