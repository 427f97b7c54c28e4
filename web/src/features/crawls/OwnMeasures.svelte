<script lang="ts">
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import type { Assessment, PageOf } from '../../lib/api';
  import { draftOn } from '../../lib/values';
  import { NOTATION_WORDS } from '../../lib/choices.gen';
  import { figure } from '../../lib/preferences.svelte';
  import type { Figure } from '../../lib/units';

  let { assessment, page }: { assessment: Assessment; page: PageOf<'crawls'> } = $props();

  const known = (said: Figure | null | undefined) => (said ? figure(said) : null);
</script>

<section aria-labelledby="own-title" class="mt-6">
  <h2 id="own-title">Your hand, tab and table</h2>
  <div class="mt-1 grid grid-cols-2 gap-3 md:grid-cols-4">
    <ReadingField
      control="finger"
      label="A finger, across the tab"
      word="finger"
      example="three 57mm"
      shown={known(page.own.finger)}
      assumed={`${page.finger_mm.toFixed(0)} mm`}
    />
    <ReadingField
      control="stitches"
      label="Ten stitches of the tab"
      word="stitches"
      example="33mm"
      shown={known(page.own.ten_stitches)}
    />
    <ReadingField
      control="eye"
      label="Eye over the nock"
      word="eye"
      example="62mm"
      shown={known(page.own.eye)}
    />
    <ReadingField
      control="reach"
      label="Nock to the point's end"
      word="reach"
      example={'{31}'}
      shown={known(page.own.reach)}
    />
    <ReadingField
      control="repeats"
      label="A crawl repeats within"
      word="repeats"
      example="2mm"
      shown={known(page.own.repeats)}
      assumed="2 mm"
    />
    <ChoiceField
      control="crawlsin"
      label="Counted in"
      choice={page.notation}
      options={NOTATION_WORDS}
      draft={(notation) => draftOn(assessment, 'archer', { kind: 'crawl_habit', notation })}
    />
    <div class="col-span-2">
      <ReadingField
        control="crawltable"
        label="Table, from, to and every"
        word="crawltable"
        example="5m to 50m every 5m"
        shown={page.own.table}
      />
    </div>
  </div>
</section>
