<script lang="ts">
  import type { GlossaryTerm } from '../lib/api';

  /** A small drawing of a term; the sentence beside it says the same. */
  let { sketch }: { sketch: NonNullable<GlossaryTerm['sketch']> } = $props();
</script>

<svg viewBox="0 0 120 84" width="120" height="84" aria-hidden="true" class="sketch">
  {#if sketch === 'draw' || sketch === 'marked_arrow' || sketch === 'pivot'}
    <path d="M96 4q-9 16-4 36q-5 22 4 40h10q-6-38 0-76z" class="wood" />
    {#if sketch !== 'pivot'}
      <path d="M58 4L14 40L58 78" class="line" />
      <path d="M14 40H112" class="shaft" />
      <circle cx="14" cy="40" r="3" class="red" />
    {/if}
    <circle cx="92" cy="42" r="3" class="spot" />
    {#if sketch === 'draw'}
      <path d="M14 62H104M14 58v8M104 58v8" class="line" />
      <path d="M92 46v20" class="dash" />
    {:else if sketch === 'marked_arrow'}
      <path d="M92 32v14" class="mark" />
      <path d="M14 62H92M14 58v8M92 58v8" class="line" />
    {:else}
      <path d="M30 42H88M84 39l5 3-5 3" class="line" />
    {/if}
  {:else if sketch === 'hook'}
    <path d="M70 4L26 42L70 80" class="line" />
    <path d="M40 36H116" class="shaft" />
    <circle cx="26" cy="42" r="9" class="skin" />
    <path d="M40 50v14M26 54v10M26 60H40" class="line" />
    <circle cx="40" cy="36" r="2.5" class="red" />
  {:else if sketch === 'brace' || sketch === 'bow_length' || sketch === 'tiller'}
    <path
      d="M8 {sketch === 'bow_length' ? 44 : 30}Q60 {sketch === 'bow_length'
        ? 36
        : 66} 112 {sketch === 'bow_length' ? 44 : 30}"
      class="limb"
    />
    {#if sketch === 'brace'}
      <path d="M8 30H112" class="line" />
      <path d="M60 30V48M57 30h6M57 48h6" class="mark" />
    {:else if sketch === 'tiller'}
      <path d="M8 30H112" class="line" />
      <path d="M34 30V44M86 30V46" class="mark" />
    {:else}
      <path d="M8 60H112M8 54v12M112 54v12" class="line" />
    {/if}
  {:else if sketch === 'stack'}
    <path d="M10 74H112M10 74V8" class="line" />
    <path d="M12 72Q66 48 84 40Q96 32 104 10" class="curve" />
    <path d="M84 74V40" class="dash" />
  {:else if sketch === 'lift' || sketch === 'locator'}
    <path d="M22 4V80" class="line" />
    <path d="M88 24v56h12V24z" class="wood" />
    <path d="M22 46H100" class="dash" />
    <path d="M24 34L112 46" class="shaft" />
    <rect
      x="17"
      y={sketch === 'locator' ? 37 : 36}
      width="10"
      height="9"
      class={sketch === 'locator' ? 'red' : 'ink'}
    />
    {#if sketch === 'lift'}<path d="M52 46V38M49 46h6M49 38h6" class="mark" />{/if}
  {:else if sketch === 'spine'}
    <path d="M8 26H112" class="dash" />
    <path d="M8 26Q60 58 112 26" class="shaft" fill="none" />
    <path d="M60 44v22M55 66h10v8h-10z" class="line" />
    <path d="M4 34l4-8 4 8zM108 34l4-8 4 8z" class="ink" />
  {:else if sketch === 'tail'}
    <path d="M96 8v70" class="butt" />
    <path d="M92 42H20" class="dash" />
    <path d="M92 42L24 58" class="shaft" />
    <circle cx="24" cy="58" r="3.5" class="red" />
  {:else if sketch === 'bare'}
    <circle cx="60" cy="42" r="34" class="ring" />
    <circle cx="60" cy="42" r="17" class="ring" />
    <circle cx="55" cy="38" r="3.5" class="ink" />
    <circle cx="64" cy="44" r="3.5" class="ink" />
    <circle cx="36" cy="58" r="3.5" class="open" />
    <circle cx="30" cy="52" r="3.5" class="open" />
  {:else if sketch === 'crawl'}
    <path d="M40 4V80" class="line" />
    <path d="M40 24H112" class="shaft" />
    <circle cx="36" cy="52" r="9" class="skin" />
    <path d="M58 24V52M55 24h6M55 52h6" class="mark" />
  {:else if sketch === 'point_on'}
    <circle cx="14" cy="30" r="4" class="spot" />
    <path d="M14 30H100" class="dash" />
    <path d="M24 44L70 33" class="shaft" />
    <path d="M24 44Q64 14 104 32" class="curve" />
    <path d="M104 14v36" class="butt" />
  {:else if sketch === 'window'}
    <path d="M60 4V80" class="dash" />
    <path d="M40 4H58V26H50V58H58V80H40z" class="wood" />
    <path d="M56 42V78" class="shaft" />
    <path d="M50 34H60" class="mark" />
  {:else if sketch === 'nock'}
    <path d="M30 34H112M30 50H112M30 34L14 36V40H24V44H14V48L30 50" class="line" />
    <circle cx="24" cy="42" r="3" class="red" />
  {/if}
</svg>

<style>
  .sketch path,
  .sketch circle,
  .sketch rect {
    fill: none;
    stroke-width: 1.4;
  }
  .sketch .wood {
    fill: var(--wood);
    stroke: var(--wood-line);
  }
  .sketch .limb {
    stroke: var(--wood-line);
    stroke-width: 5;
  }
  .sketch .shaft {
    stroke: var(--wood-line);
    stroke-width: 3;
  }
  .sketch .line,
  .sketch .ring {
    stroke: var(--ink);
  }
  .sketch .dash {
    stroke: var(--soft);
    stroke-dasharray: 5 3;
  }
  .sketch .mark {
    stroke: var(--blue);
    stroke-width: 2.2;
  }
  .sketch .curve {
    stroke: var(--blue);
    stroke-width: 2;
  }
  .sketch .butt {
    stroke: var(--wood-line);
    stroke-width: 9;
  }
  .sketch .red {
    fill: var(--red);
  }
  .sketch .ink {
    fill: var(--ink);
  }
  .sketch .open {
    fill: var(--paper);
    stroke: var(--ink);
  }
  .sketch .spot {
    fill: var(--paper);
    stroke: var(--ink);
  }
  .sketch .skin {
    fill: var(--faint);
    stroke: var(--ink);
  }
</style>
