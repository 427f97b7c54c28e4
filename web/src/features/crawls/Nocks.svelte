<script lang="ts">
  import type { PlanBoard } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { gap } from '../../lib/units';

  let { board }: { board: PlanBoard } = $props();

  const nocks = $derived(board.nocks);
  const [low, high] = $derived(board.nocks?.two ?? []);
  const lift = (mm: number) => figure(gap(mm));
  const mm = (value: number) => `${value.toFixed(0)} mm`;
</script>

<div class="mt-6 grid gap-6 lg:grid-cols-2">
  {#if nocks}
    <section aria-labelledby="nocks-title">
      <h2 id="nocks-title">Which nock height these crawls favour</h2>
      <p class="mt-1 text-lg">
        Set for a crawl of {mm(nocks.one.crawl_mm)}: begin at a lift of
        <strong>{lift(nocks.one.lift_mm)}</strong>.
      </p>
      {#if nocks.own_lift_mm != null}
        <p>
          {nocks.fixed
            ? `Yours is fixed at ${lift(nocks.own_lift_mm)}: found by flight, it stands.`
            : `Yours is ${lift(nocks.own_lift_mm)}.`}
        </p>
      {/if}
      {#if low && high}
        <p class="mt-2">
          <strong>Two nocks serve better:</strong>
          {lift(low.lift_mm)} for {low.from_says} to {low.to_says}, {lift(high.lift_mm)} for
          {high.from_says} to {high.to_says}. The height is then off by
          {(nocks.two_error_mm ?? 0).toFixed(1)} mm instead of {nocks.error_mm.toFixed(1)}.
        </p>
      {:else}
        <p class="mt-2">
          One nock is enough: over the table its height is off by {nocks.error_mm.toFixed(1)} mm.
        </p>
      {/if}
      <p class="mt-1 text-sm text-soft">
        By the trade's habit of an arrow's width more for a deep crawl; every distance of the table
        counts alike. Flight finds the height.
      </p>
    </section>
  {/if}
  <section aria-labelledby="deep-title">
    <h2 id="deep-title">How deep this bow lets you go</h2>
    <p class="mt-1 text-lg">
      {#if board.deep_mm == null}
        Its margin before stack holds any crawl a hand reaches.
      {:else if board.deep_mm <= 0}
        <strong class="text-amber">At your draw it is past the onset of stack already.</strong>
      {:else}
        To <strong>{mm(board.deep_mm)}</strong> before the lower limb comes to stack.
      {/if}
    </p>
    <p>The table's deepest crawl is {mm(board.deepest_mm)}.</p>
    {#if board.short_bow}
      <p class="text-soft">
        A short bow: from 45 mm on expect porpoising and noise, and shoot near marks otherwise.
      </p>
    {/if}
    <p class="mt-1 text-sm text-soft">The worst case: the bow held square to the arrow.</p>
  </section>
</div>
