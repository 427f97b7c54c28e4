<script lang="ts">
  import { scaleLinear } from 'd3-scale';

  let { change, half, told }: { change: number; half: number; told: boolean } = $props();

  const W = 420;
  const H = 62;
  const LEFT = 14;
  const reach = $derived(Math.max(4, Math.ceil(Math.abs(change) + half + 1)));
  const x = $derived(scaleLinear([-reach, reach], [LEFT, W - LEFT]));
  const ticks = $derived(x.ticks(7).filter((db) => Math.abs(db) < reach));
  const tick = (db: number) => (db > 0 ? `+${db}` : db < 0 ? `−${-db}` : '0');
  const says = $derived(
    `${Math.abs(change).toFixed(1)} ± ${half.toFixed(1)} dB ${change < 0 ? 'quieter' : 'louder'}, ${told ? 'told apart' : 'not told apart from as before'}`,
  );
</script>

<svg viewBox="0 0 {W} {H}" role="img" aria-label={says}>
  <text x={LEFT} y="12" class="soft">quieter</text>
  <text x={W - LEFT} y="12" text-anchor="end" class="soft">louder</text>
  <rect
    class="band"
    class:told
    x={x(change - half)}
    y="20"
    width={x(change + half) - x(change - half)}
    height="18"
  />
  <line class="axis" x1={LEFT} x2={W - LEFT} y1="38" y2="38" />
  <line class="zero" x1={x(0)} x2={x(0)} y1="16" y2="42" />
  <line class="found" class:told x1={x(change)} x2={x(change)} y1="18" y2="40" />
  {#each ticks as db (db)}
    <line class="axis" x1={x(db)} x2={x(db)} y1="38" y2="42" />
    <text x={x(db)} y="55" text-anchor="middle" class="soft"
      >{db === 0 ? 'as before' : tick(db)}</text
    >
  {/each}
</svg>

<style>
  svg {
    width: 100%;
    max-width: 28rem;
  }
  .band {
    fill: color-mix(in srgb, var(--soft) 30%, var(--paper));
  }
  .band.told {
    fill: color-mix(in srgb, var(--green) 38%, var(--paper));
  }
  .axis {
    stroke: var(--soft);
  }
  .zero {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .found {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .found.told {
    stroke: var(--green);
    stroke-width: 3;
  }
</style>
