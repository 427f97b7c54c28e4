<script lang="ts">
  import LineForm from '../../components/LineForm.svelte';
  import LineInput from '../../components/LineInput.svelte';
  import PickOne from '../../components/PickOne.svelte';
  import { Reading } from '../../lib/reading.svelte';

  let { notation, unit }: { notation: string; unit: string } = $props();

  const SPOKEN: Record<string, string> = { mm: 'mm', fingers: ' fingers', stitches: ' stitches' };
  /** A plain number is in the archer's own unit. */
  const with_unit = (typed: string, behind: string) =>
    /[a-z"]\s*$/i.test(typed.trim()) ? typed : `${typed.trim()}${behind}`;

  const SURE = [
    ['', 'as usual'],
    ['sure', 'sure'],
    ['about', 'about'],
  ] as const;
  const KNOWN = [
    ['', 'known'],
    ['guessed', 'guessed'],
  ] as const;

  let first = $state<LineInput>();
  const reading = new Reading({
    from: 'crawl',
    fields: { distance: '', crawl: '', off: '', sure: '', guessed: '' },
    line: (fields) => [
      'crawl',
      { field: 'distance', text: with_unit(fields.distance ?? '', unit) },
      { field: 'crawl', text: with_unit(fields.crawl ?? '', SPOKEN[notation] ?? 'mm') },
      ...(fields.off?.trim() ? [{ field: 'off' }] : []),
      fields.sure ?? '',
      fields.guessed ?? '',
    ],
    stays: ['sure', 'guessed'],
    whole: ({ distance, crawl }) => Boolean(distance?.trim() && crawl?.trim()),
  });
</script>

<LineForm
  {reading}
  id="crawl"
  where={false}
  columns="grid-cols-[1fr_1fr_1.2fr_auto] items-end max-sm:grid-cols-2"
  onrecorded={() => first?.focus()}
  hint="Where it struck is left empty when it was right. High asks for more crawl."
>
  {#snippet children(record)}
    <LineInput
      bind:this={first}
      {reading}
      form="crawl"
      name="distance"
      label="Distance"
      placeholder={`e.g. 20${unit}`}
      control="crawl"
    />
    <LineInput
      {reading}
      form="crawl"
      name="crawl"
      label="Crawl"
      placeholder={notation === 'mm'
        ? 'e.g. 34mm'
        : `e.g. ${notation === 'fingers' ? '2 3/4' : '11'}`}
    />
    <LineInput {reading} form="crawl" name="off" label="It struck" placeholder="12cm high" />
    {@render record()}
    <div class="col-span-full flex flex-wrap gap-x-5 gap-y-2">
      <PickOne
        legend="The crawl"
        options={SURE}
        value={reading.fields.sure ?? ''}
        pick={(sure) => reading.set({ sure })}
      />
      <PickOne
        legend="The distance"
        options={KNOWN}
        value={reading.fields.guessed ?? ''}
        pick={(guessed) => reading.set({ guessed })}
      />
    </div>
  {/snippet}
</LineForm>
