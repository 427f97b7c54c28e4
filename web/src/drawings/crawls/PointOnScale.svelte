<script lang="ts">
  /** Where point-on lies from 10 to 90 m, beside what is wished for. */
  let { at_m, wished_m }: { at_m: number | null; wished_m: number } = $props();

  const [FROM, TO] = [10, 90];
  const place = (metres: number) =>
    `${(100 * (Math.min(Math.max(metres, FROM), TO) - FROM)) / (TO - FROM)}%`;
</script>

<span class="scale" aria-hidden="true">
  <span class="wished" style:left={place(wished_m)}></span>
  {#if at_m !== null}<span class="bar" style:width={place(at_m)}></span>{/if}
</span>

<style>
  .scale {
    display: inline-block;
    position: relative;
    vertical-align: middle;
    width: 7rem;
    height: 0.8rem;
    margin-right: 0.6rem;
    background: var(--faint);
  }
  @media (max-width: 767px) {
    .scale {
      display: none;
    }
  }
  .bar {
    position: absolute;
    left: 0;
    top: 25%;
    bottom: 25%;
    background: var(--ink);
  }
  .wished {
    position: absolute;
    top: 0;
    bottom: 0;
    border-left: 2px solid var(--green);
  }
</style>
