<script lang="ts">
  import { lengthEg } from '../../lib/examples';
  import { figure } from '../../lib/preferences.svelte';
  import { mm } from '../../lib/units';
  import { wanted } from '../../lib/wanted';
  import { DATUMS } from '../../lib/choices';
  import { Reading } from '../../lib/reading.svelte';
  import LineForm from '../../components/LineForm.svelte';

  const WAYS = [
    ['marked', 'Marked arrow', 'Draw a light bow, mark the shaft, measure nock groove to mark.'],
    [
      'scale',
      'String on a scale',
      'Where the string at your hook stands, at full draw on a scale.',
    ],
    [
      'tape',
      'Fingertip to shoulder',
      'Tape along the arm to the hollow at the ball of the shoulder.',
    ],
    ['span', 'Arm span', 'Fingertip to fingertip, arms spread. A first guess.'],
    ['said', 'Told or remembered', 'Hearsay: a first guess.'],
    ['supposed', 'Supposed', 'An estimate, marked as one.'],
  ] as const;

  const HEADS: Record<string, string> = {
    marked: 'draw',
    scale: 'draw hook',
    tape: 'tape',
    span: 'span',
    said: 'draw said',
    supposed: 'draw said',
  };

  const takesDatum = (way: string | undefined) => way !== 'tape' && way !== 'span';
  const reading = new Reading({
    from: 'draw',
    fields: { text: '', way: 'marked', datum: '', here: '' },
    stays: ['way', 'datum', 'here'],
    line: ({ way = 'marked', datum = '', here = '' }) => [
      HEADS[way] ?? 'draw',
      { field: 'text' },
      ...(takesDatum(way) ? [datum, here] : []),
      way === 'supposed' ? '?' : '',
    ],
  });
  const way = $derived(reading.fields.way);

  function guess(text: string) {
    const bare = text.replace(/^(draw hook|draw|tape|span) /, '');
    if (text.startsWith('bow')) {
      document.getElementById('jot')?.focus();
      return;
    }
    const said = text.startsWith('span') ? 'span' : text.startsWith('tape') ? 'tape' : null;
    reading.set({ text: bare, ...(said ? { way: said } : {}) });
  }
</script>

<LineForm
  {reading}
  id="draw"
  onguess={guess}
  hint={WAYS.find(([value]) => value === way)?.[2] ?? ''}
>
  {#snippet children(record)}
    <div class="min-w-0">
      <label class="label block" for="draw-way">How it was measured</label>
      <select
        id="draw-way"
        class="field"
        value={way}
        onchange={(event) => reading.set({ way: event.currentTarget.value })}
      >
        {#each WAYS as [value, words] (value)}<option {value}>{words}</option>{/each}
      </select>
    </div>
    <div class="min-w-0">
      <label class="label block" for="draw-datum">Measured to</label>
      <select
        id="draw-datum"
        class="field"
        value={reading.fields.datum}
        onchange={(event) => reading.set({ datum: event.currentTarget.value })}
        disabled={!takesDatum(way)}
      >
        {#each DATUMS as [value, words] (value)}
          <option {value}>{value ? words : `pivot + ${figure(mm(44.45))}`}</option>
        {/each}
      </select>
    </div>
    <div class="min-w-0">
      <label class="label block" for="field-draw">Reading</label>
      <input
        {@attach wanted('draw')}
        id="field-draw"
        class="field"
        autocomplete="off"
        placeholder={`e.g. ${lengthEg(way === 'span' ? '70' : '27 3/8')}`}
        value={reading.text}
        oninput={(event) => reading.type(event.currentTarget.value)}
        aria-invalid={reading.problem ? 'true' : undefined}
        aria-describedby="draw-says"
      />
    </div>
    <div class="flex items-end justify-between gap-2">
      <label class="flex min-h-9 items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={reading.fields.here === 'here'}
          onchange={(event) => reading.set({ here: event.currentTarget.checked ? 'here' : '' })}
          disabled={!takesDatum(way)}
        />
        this rig only
      </label>
      {@render record()}
    </div>
  {/snippet}
</LineForm>
