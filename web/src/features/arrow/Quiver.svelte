<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import ArrowHead from './ArrowHead.svelte';
  import BestMatched from './BestMatched.svelte';
  import { MatchedChoice } from './matched.svelte';
  import QuiverEntry from './QuiverEntry.svelte';
  import QuiverImport from './QuiverImport.svelte';
  import QuiverList from './QuiverList.svelte';

  const choice = new MatchedChoice().follow();
</script>

<WhenReady key="arrow">
  {#snippet children(assessment, stage, page)}
    {@const rows = page.quiver}
    <ArrowHead {assessment} {stage} />
    <section aria-labelledby="enter-arrows">
      <h2 id="enter-arrows">Enter arrows</h2>
      <QuiverEntry />
    </section>
    <section aria-labelledby="quiver" class="mt-5">
      <h2 id="quiver">The quiver</h2>
      <QuiverList
        {rows}
        chosen={choice.data?.chosen ?? []}
        offTheHand={page.off_the_hand === true}
      />
    </section>
    <section aria-labelledby="matched" class="mt-6">
      <h2 id="matched">Best matched</h2>
      <BestMatched {rows} {choice} />
    </section>
    <section aria-labelledby="import" class="mt-6">
      <h2 id="import">Paste or import a table</h2>
      <QuiverImport rig={assessment.rig ?? ''} any={rows.length > 0} />
    </section>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
