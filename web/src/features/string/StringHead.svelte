<script lang="ts">
  import StageHead from '../../components/StageHead.svelte';
  import { string } from './place';
  import StagePages from '../../components/StagePages.svelte';
  import type { PageOf, Stage } from '../../lib/api';
  import { valueOf } from '../../lib/values';

  let { stage, page }: { stage: Stage; page: PageOf<'string'> } = $props();

  const TO = { pivot: 'the deepest of the grip', back: 'the back', plunger: "the plunger's line" };

  const about = $derived.by(() => {
    const fibre = valueOf(stage, 'material')?.text ?? 'Fibre not told';
    const strands = valueOf(stage, 'strands')?.figure?.value;
    const settled = page.settling.settled;
    const said = [
      fibre,
      strands ? `${strands} strands` : null,
      settled === true ? 'settled' : settled === false ? 'still settling' : null,
    ].filter(Boolean);
    const words = `${said.join(', ')}.`;
    const to = page.datum ? ` Brace from ${TO[page.datum]}.` : '';
    return `${words[0]?.toUpperCase()}${words.slice(1)}${to}`;
  });
</script>

<StageHead {stage} {about} />
<StagePages stage="string" label="The string's pages" pages={string.pages} />
