<script lang="ts">
  let { level, room, peak, clips }: { level: number; room: number; peak: number; clips: boolean } =
    $props();

  const LOW = -70;
  const ENOUGH = 20;
  const across = (db: number) => (100 * (Math.min(Math.max(db, LOW), 0) - LOW)) / -LOW;
  const enough = $derived(Math.min(room + ENOUGH, -12));
  const says = $derived(
    clips
      ? 'overloaded: move it back'
      : peak > enough
        ? `good: ${(peak - room).toFixed(0)} dB over the room`
        : room > -35
          ? 'the room is loud'
          : 'listening',
  );
</script>

<div class="meter">
  <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true">
    <rect class="base" width="100" height="8" />
    <rect class="enough" x={across(enough)} width={across(-3) - across(enough)} height="8" />
    <rect class="clip" x={across(-3)} width={100 - across(-3)} height="8" />
    <rect class="room" width={across(room)} height="8" />
    <rect class="level" y="3" width={across(level)} height="2" />
    <rect class="peak" x={across(peak) - 0.2} width="0.4" height="8" />
  </svg>
  <p class="words" role="status">
    <span class="text-soft">room {room.toFixed(0)} dB</span>
    <span class:text-red={clips} class:text-green={!clips && peak > enough} class="font-semibold"
      >{says}</span
    >
  </p>
</div>

<style>
  svg {
    display: block;
    width: 100%;
    height: 1.6rem;
  }
  .base {
    fill: var(--faint);
  }
  .enough {
    fill: color-mix(in srgb, var(--green) 22%, var(--paper));
  }
  .clip {
    fill: color-mix(in srgb, var(--red) 30%, var(--paper));
  }
  .room {
    fill: var(--ink);
  }
  .level {
    fill: var(--soft);
  }
  .peak {
    fill: var(--ink);
  }
  .words {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
    font-size: 0.87rem;
  }
</style>
