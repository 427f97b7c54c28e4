<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import SettlingChart from '../../drawings/string/SettlingChart.svelte';
  import type { Assessment, EntryDraft } from '../../lib/api';
  import { figure } from '../../lib/preferences.svelte';
  import { Recording } from '../../lib/recording.svelte';
  import { gap, mm } from '../../lib/units';
  import { draftOn } from '../../lib/values';
  import SettlingForm from './SettlingForm.svelte';
  import StringHead from './StringHead.svelte';

  const pressed = new Recording();

  function press(assessment: Assessment, reading: EntryDraft['reading'], says: string) {
    void pressed.record([draftOn(assessment, 'string', reading)], 'string', says);
  }
</script>

<WhenReady key="string">
  {#snippet children(assessment, stage, page)}
    {@const drawing = page.settling}
    <StringHead {stage} {page} />
    {#if drawing.curve}
      <SettlingChart {drawing} />
      <p class="mt-1">
        {#if drawing.settled}
          <strong>It has settled.</strong> At most {figure(gap(drawing.left_p90_mm ?? 0))} of brace is
          still to come, nine in ten.
        {:else if drawing.still}
          <strong>No longer moving that we can see.</strong> Look again after the next two sittings:
          it has settled when two of them, 12 h strung apart, agree within {figure(mm(1.5875))}.
        {:else}
          <strong>Still settling:</strong> about {figure(gap(drawing.left_mm ?? 0))} of brace to come,
          at most {figure(gap(drawing.left_p90_mm ?? 0))}.
          {drawing.settled_at == null
            ? 'When it will be done is not yet to be said.'
            : `Settled after about ${drawing.settled_at.toFixed(0)} h strung; wait before setting the nock.`}
        {/if}
      </p>
    {:else}
      <p class="grid h-40 place-items-center border border-dashed border-line p-4 text-soft">
        <span class="max-w-md text-center">
          {drawing.settled
            ? 'This string is told as settled.'
            : 'A new string lets the brace down for a day or more. Read the brace as the hours go by, and it is seen when that ends.'}
        </span>
      </p>
    {/if}
    {#if drawing.too_early}
      <p class="mt-1 text-amber">
        {drawing.too_early === 1 ? 'One reading was' : `${drawing.too_early} readings were`} taken before
        the string was strung, or at hours that run backwards: left out.
      </p>
    {/if}
    <div class="mt-4 grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="read-brace">
        <h2 id="read-brace">Read the brace</h2>
        <SettlingForm clock={drawing.strung != null} />
      </section>
      <section aria-labelledby="clock-of">
        <h2 id="clock-of">The string's clock</h2>
        <p class="mt-1 text-soft">
          {drawing.strung === true
            ? 'The bow is strung: its hours count.'
            : drawing.strung === false
              ? 'The bow is unstrung: its clock stands.'
              : 'Say when the bow is strung and the hours count by themselves, or type them.'}
        </p>
        <div class="mt-2 flex flex-wrap gap-2">
          {#if drawing.strung}
            <button
              class="act"
              disabled={pressed.busy}
              onclick={() =>
                press(assessment, { kind: 'string_strung', strung: false }, 'Unstrung')}
              >Unstrung now</button
            >
          {:else}
            <button
              class="act"
              disabled={pressed.busy}
              onclick={() => press(assessment, { kind: 'string_strung', strung: true }, 'Strung')}
              >Strung now</button
            >
          {/if}
          {#if !drawing.settled}
            <button
              class="act"
              disabled={pressed.busy}
              onclick={() =>
                press(
                  assessment,
                  { kind: 'string_settled', settled: true },
                  'The string has settled',
                )}>It is an old string</button
            >
          {/if}
        </div>
        {#if pressed.problem}<ProblemNote problem={pressed.problem} id="problem-clock" />{/if}
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
