<script lang="ts">
  import { figure } from '../../lib/preferences.svelte';
  import { deg } from '../../lib/units';
  import type { BenchView } from './view.svelte';

  let { view }: { view: BenchView } = $props();

  const cx = $derived(view.W / 2);
  const hook = $derived(view.at(view.draw));
  const tip = $derived(view.place(-1, view.pose.limb.at(-1) ?? [0, 0]));
  const half = $derived((view.pose.finger_angle_deg * Math.PI) / 360);
  const arc = $derived.by(() => {
    const r = 46;
    const [dx, dy] = [r * Math.sin(half), r * Math.cos(half)];
    return `M${cx - dx} ${hook - dy}A${r} ${r} 0 0 1 ${cx + dx} ${hook - dy}`;
  });
  const drawn = $derived(view.draw - view.rest > 40);
</script>

{#if drawn}
  <path d={arc} fill="none" stroke="var(--soft)" stroke-dasharray="2 3" />
  <text x={cx + 62} y={hook - 16} class="strong">{figure(deg(view.pose.finger_angle_deg))}</text>
  {#if !view.narrow}<text x={cx + 62} y={hook} class="soft">at the hook</text>{/if}
  {#if !view.narrow}
    <text x={tip[0] - 6} y={tip[1] + 24} class="strong" text-anchor="middle">
      {view.pose.tip_angle_deg > 0 ? figure(deg(view.pose.tip_angle_deg)) : 'lies on'}
    </text>
    <text x={tip[0] - 6} y={tip[1] + 40} class="soft" text-anchor="middle">at the tip</text>
  {/if}
{/if}

<style>
  .strong {
    font-weight: 600;
    font-size: 15px;
  }
</style>
