<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { gap, mm } from '../../lib/units';
  import { valueOf } from '../../lib/values';
  import StringHead from './StringHead.svelte';

  const halves = (turns: number) => `${Math.round(2 * turns) / 2}`;
  const changed = (change_mm: number) =>
    `${figure(mm(Math.abs(change_mm)))} ${change_mm < 0 ? 'lower' : 'higher'}`;
</script>

<WhenReady key="string">
  {#snippet children(_, stage, page)}
    {@const table = page.turns}
    <StringHead {stage} {page} />
    {#if table}
      <p class="text-lg">
        The next ten turns give
        <strong>{figure(mm(table.ten_turns_mm, table.ten_turns_plus_minus_mm))}</strong> of brace; the
        first ones did little, each does more than the last.
      </p>
      <div class="mt-3 grid gap-6 lg:grid-cols-2">
        <section aria-labelledby="for-a-wish">
          <h2 id="for-a-wish">Turns for a brace</h2>
          <table class="rows mt-1">
            <thead><tr><th>Brace</th><th>Turns then</th><th>From now</th></tr></thead>
            <tbody>
              {#each table.steps as step (step.change_mm)}
                <tr>
                  <td>{changed(step.change_mm)}</td>
                  {#if step.turns == null}
                    <td colspan="2" class="text-amber">untwisting to none does not do it</td>
                  {:else}
                    <td class="font-semibold">{halves(step.turns)}</td>
                    <td class="text-soft">
                      {step.turns >= table.now ? 'put in' : 'take out'}
                      {halves(Math.abs(step.turns - table.now))}
                    </td>
                  {/if}
                </tr>
              {/each}
            </tbody>
          </table>
        </section>
        <section aria-labelledby="what-it-rests-on">
          <h2 id="what-it-rests-on">What it rests on</h2>
          {#if table.now_plus_minus != null}
            <p class="mt-1 font-semibold">
              About {halves(table.now)} ± {halves(table.now_plus_minus)} turns, by what your change did
              to the brace. Count them once, and the count stands.
            </p>
          {/if}
          <p class="mt-1">
            {halves(table.now)} turns take {figure(gap(table.shortened_mm))} off the string. What comes
            off gives {table.gain.toFixed(1)} ± {table.gain_plus_minus.toFixed(1)} times as much brace.
          </p>
          <p class="mt-2 text-soft">
            {#if table.pairs}
              Drawn to {table.pairs === 1 ? 'a change' : `${table.pairs} changes`} of your own, which
              outrank the model's {table.model_gain.toFixed(2)}.
            {:else}
              From the model. Read the brace before and after a few turns, and your own readings
              outrank it.
            {/if}
            {page.sheet.diameter_plus_minus_mm && page.sheet.diameter_plus_minus_mm > 0.2
              ? 'The bundle is not measured: that alone is a fifth of it.'
              : ''}
          </p>
        </section>
      </div>
    {:else}
      <p class="grid h-40 place-items-center border border-dashed border-line p-4 text-soft">
        <span class="max-w-md text-center"
          >Count the turns in the string, and tell its fibre and strands or measure the bundle: then
          it is said what a turn does. Nobody counted? Read the brace, put in ten more, read it
          again: how many there are follows.</span
        >
      </p>
    {/if}
    <div class="mt-5 grid max-w-xl grid-cols-2 gap-3">
      <ReadingField
        control="turns"
        label="Turns now"
        word="turns"
        example="19.5"
        shown={table && table.now_plus_minus == null ? halves(table.now) : null}
        assumed={table?.now_plus_minus != null ? `about ${halves(table.now)}` : null}
        hint="Whole or half turns, the way the bundle is laid; or a change: 10 more, 5 out."
      />
      <ReadingField
        control="turns-brace"
        label="Brace with them"
        word="brace"
        example={'{7 5/8}'}
        shown={valueOf(stage, 'brace')?.figure ? figure(mm(page.valley.now_mm ?? 0)) : null}
      />
    </div>
    <p class="mt-4 text-sm text-soft">
      Twisted bundles hold by their turns: do not take them far out. A loop without end can be made
      shorter only.
    </p>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
