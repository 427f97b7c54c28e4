<script lang="ts">
  import DidNotCome from '../../components/DidNotCome.svelte';
  import Plain from '../../components/Plain.svelte';
  import { api, type PartKind, type PartOut } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';
  import PartLine from './PartLine.svelte';

  const KINDS = [
    ['archer', 'Archers'],
    ['bow', 'Bows'],
    ['string', 'Strings'],
    ['arrow_set', 'Arrow sets'],
  ] as const satisfies readonly (readonly [PartKind, string])[];
  const asked = new Asked<PartOut[]>();
  const load = () => asked.ask(api.parts);
  const shown = $derived(
    KINDS.map(([kind, name]) => ({
      kind,
      name,
      parts: asked.data?.filter((part) => part.kind === kind) ?? [],
    })).filter(({ parts }) => parts.length),
  );

  void load();
  document.title = 'Parts · Lyrandis';
</script>

<Plain>
  <div class="flex flex-wrap items-end justify-between gap-3">
    <div>
      <h1>Parts</h1>
      <p class="text-soft">What is on the bench, who has it, and how it was last found.</p>
    </div>
    <a class="act" href="/">Rigs</a>
  </div>
  {#if asked.problem}
    <DidNotCome problem={asked.problem} again={load} />
  {:else if !asked.data}
    <p class="mt-4 text-soft" aria-busy="true">Looking through the parts…</p>
  {:else if !asked.data.length}
    <p class="mt-4">
      Nothing is on the bench yet. <a class="underline" href="/new">Begin with a rig</a>.
    </p>
  {/if}
  {#each shown as { kind, name, parts } (kind)}
    <section class="mt-7" aria-labelledby="parts-{kind}">
      <h2 id="parts-{kind}" class="border-b border-line pb-1">{name}</h2>
      <ul>
        {#each parts as part (part.id)}
          <PartLine {part} renamed={load} />
        {/each}
      </ul>
    </section>
  {/each}
</Plain>
