<script lang="ts">
  import DidNotCome from '../../components/DidNotCome.svelte';
  import { goTo } from '../../lib/go';
  import { openRig } from '../../lib/openrig.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import OrderLine from './OrderLine.svelte';
  import { OrderOfWork } from './order.svelte';

  const order = new OrderOfWork().follow();
  const KITS = {
    plain: 'Plain bow',
    rest: 'Rest or plunger can be set',
    full: 'Fully adjustable',
  };
  const HABITS = [
    ['workbench', 'Whole workbench'],
    ['short', 'Short order'],
  ] as const;
  const about = $derived.by(() => {
    const found = order.data;
    if (!found) return '';
    const count = `${KITS[found.kit]}, ${found.stations.length} settings.`;
    if (found.doubted) {
      const are = found.doubted === 1 ? 'One is' : `${found.doubted} are`;
      return `${count} ${are} in doubt: ${found.minutes} min to check.`;
    }
    return found.next ? count : `${count} All that is asked for stands.`;
  });
  const first = $derived.by(() => {
    const found = order.data;
    const step = openRig.assessment?.next_step;
    const station = found?.stations.find((one) => one.node === found.next);
    if (!step || !station) return null;
    const same = step.action.stage === station.stage && step.action.control === station.control;
    return same ? null : tell(step.title);
  });
</script>

{#if openRig.assessment}
  <header class="mb-3">
    <h1>Order of work</h1>
    <p class="text-soft">
      {about}{#if first}<span class="text-ink">&nbsp;First: {first}.</span>{/if}
    </p>
    {#if order.data?.tuning_doubted}
      <p class="text-amber">
        The flight's tuning is in doubt: {tell(order.data.tuning_doubted)}.
        <button
          class="quiet text-ink"
          onclick={() => void goTo({ stage: 'flight', control: 'tail' })}>Shoot it again</button
        >
      </p>
    {/if}
  </header>
{/if}
{#if order.problem}
  <DidNotCome problem={order.problem} again={order.load} />
{:else if !order.data}
  <p class="text-soft" aria-busy="true">Laying out the order…</p>
{:else}
  {#if order.data.kit !== 'plain'}
    <div class="mb-2 flex gap-5 border-b border-line" role="group" aria-label="Which order is kept">
      {#each HABITS as [habit, words] (habit)}
        <button
          class="habit"
          aria-pressed={order.data.habit === habit}
          disabled={order.saying.busy}
          onclick={() => order.say({ kind: 'order_habit', habit }, words)}>{words}</button
        >
      {/each}
    </div>
  {/if}
  <OrderLine {order} />
{/if}

<style>
  .habit {
    padding: 0.35rem 0;
    color: var(--soft);
    border-bottom: 2px solid transparent;
    margin-bottom: -1px;
  }
  .habit[aria-pressed='true'] {
    color: var(--ink);
    font-weight: 600;
    border-bottom-color: var(--ink);
  }
</style>
