<script lang="ts">
  import ProblemNote from '../../components/ProblemNote.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import type { EntryDraft, PageOf } from '../../lib/api';
  import { openRig } from '../../lib/openrig.svelte';
  import { tell } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';

  let { page }: { page: PageOf<'crawls'> } = $props();

  type Mark = PageOf<'crawls'>['marks'][number];
  const pressed = new Recording();

  function press(reading: EntryDraft['reading'], says: string) {
    const subject = { kind: 'rig' as const, id: openRig.rig ?? '' };
    void pressed.record([{ subject, reading }], null, says);
  }
  /** Told otherwise than in mm, or put right by where it struck: what it comes to stands beside. */
  const counted = $derived(page.marks.some((mark) => !mark.plain));
  const against = (mark: Mark) =>
    mark.off_mm == null
      ? ''
      : Math.abs(mark.off_mm) < 0.05
        ? 'on the table'
        : `${Math.abs(mark.off_mm).toFixed(1)} mm ${mark.off_mm > 0 ? 'deeper' : 'shallower'}`;
  const other = $derived(page.unit === 'yd' ? 'metres' : 'yards');
</script>

{#if page.marks.length}
  <table class="rows mt-1">
    <thead>
      <tr>
        <th>At</th>
        <th>Crawl</th>
        {#if counted}<th>mm</th>{/if}
        <th>Against the table</th>
        <th>Counts</th>
        <th><span class="sr-only">Change</span></th>
      </tr>
    </thead>
    <tbody>
      {#each page.marks as mark (mark.entry_id)}
        <tr>
          <th scope="row" class="font-semibold whitespace-nowrap text-ink">{mark.where}</th>
          <td class:whitespace-nowrap={mark.plain}>
            {tell(mark.told)}
            {#if !counted && mark.sd_mm != null}
              <span class="text-soft">± {(2 * mark.sd_mm).toFixed(0)}</span>
            {/if}
          </td>
          {#if counted}
            <td class="whitespace-nowrap">
              {#if mark.crawl_mm != null}
                {mark.crawl_mm.toFixed(1)}
                <span class="text-soft">± {(2 * (mark.sd_mm ?? 0)).toFixed(0)}</span>
              {/if}
            </td>
          {/if}
          <td class="whitespace-nowrap" class:text-amber={mark.odd} class:font-semibold={mark.odd}
            >{against(mark)}</td
          >
          <td class="text-soft">{mark.why_not ?? 'yes'}</td>
          <td class="text-right">
            {#if mark.odd && !mark.counts}
              <button
                class="quiet text-sm"
                disabled={pressed.busy}
                onclick={() =>
                  press({ kind: 'crawl_counted', mark: mark.entry_id, counted: true }, 'It counts')}
                >count it</button
              >
            {:else if mark.odd}
              <button
                class="quiet text-sm"
                disabled={pressed.busy}
                onclick={() =>
                  press({ kind: 'crawl_counted', mark: mark.entry_id, counted: false }, 'Left out')}
                >leave it out</button
              >
            {/if}
            <TakeBack entry={mark.entry_id} what={tell(mark.says)} />
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="mt-1 text-sm">
    <button
      class="quiet"
      class:text-amber={page.ask_yards}
      disabled={pressed.busy}
      onclick={() =>
        press(
          { kind: 'crawl_units', unit: page.unit === 'yd' ? 'm' : 'yd' },
          `Distances are ${other}`,
        )}>these were all {other}</button
    >
    {#if page.ask_yards}<span class="text-soft">They fit better so.</span>{/if}
  </p>
  {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-marks" />{/if}
{/if}
