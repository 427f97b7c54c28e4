<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { valueOf } from '../../lib/values';
  import { shown } from '../bow/about';
  import BraceBench from './BraceBench.svelte';
  import Quarter from './Quarter.svelte';
  import StringHead from './StringHead.svelte';
</script>

<WhenReady key="string">
  {#snippet children(_, stage, page)}
    <StringHead {stage} {page} />
    <BraceBench valley={page.valley} settled={page.settling.settled ?? null} />
    {#if page.quarter}<Quarter quarter={page.quarter} />{/if}
    <div class="mt-5 grid max-w-xl grid-cols-2 gap-3">
      <ReadingField
        control="brace-now"
        label="Brace height now"
        word="brace"
        example={'{7 5/8}'}
        shown={shown(stage, 'brace')}
        hint={page.datum ? null : 'To the grip, the back or the plunger: it is asked once.'}
      />
      <ReadingField
        control="bracerange"
        label="Maker's brace, low to high"
        word="bracerange"
        example={'{7} to {8}'}
        shown={valueOf(openRig.stage('bow'), 'brace_range')?.figure
          ? shown(openRig.stage('bow')!, 'brace_range')
          : null}
      />
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
