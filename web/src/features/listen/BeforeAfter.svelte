<script lang="ts">
  import { onMount, tick } from 'svelte';
  import Cautions from '../../components/Cautions.svelte';
  import PickOne from '../../components/PickOne.svelte';
  import ProblemNote from '../../components/ProblemNote.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import { openRig } from '../../lib/openrig.svelte';
  import { pagePath } from '../../lib/paths';
  import { tell } from '../../lib/preferences.svelte';
  import { lookAt } from '../../lib/wanted';
  import type { PageOf } from '../../lib/api';
  import BringSound from './BringSound.svelte';
  import { Listening } from './hearing.svelte';
  import { keptSounds } from './kept.svelte';
  import ListenHead from './ListenHead.svelte';
  import NewTakes from './NewTakes.svelte';
  import PairView from './PairView.svelte';
  import { Striking } from './striking.svelte';

  const EVENING_MS = 3 * 3600 * 1000;
  type What = 'pluck' | 'shot' | 'reference';
  const page = $derived(openRig.pages.listen as PageOf<'listen'> | undefined);
  const last = $derived(page?.recordings.at(-1));

  const what = $derived<What>(keptSounds.as ?? nextKind());
  const listening = new Listening();
  const striking = new Striking();
  let fresh = $state<NewTakes>();
  let samePlace = $state(false);

  onMount(() => {
    void keptSounds.load();
    // the same evening, most likely the same place
    const kept = keptSounds.handed();
    if (kept) void tick().then(() => fresh && void listening.take(kept, fresh.question));
    samePlace = last !== undefined && Date.now() - Date.parse(last.at) < EVENING_MS;
  });

  let result = $state<HTMLElement>();
  function nextKind(): What {
    if (!page?.recordings.length) return 'pluck';
    return page.recordings.some((one) => one.what === 'pluck') ? 'shot' : 'pluck';
  }
  const HOW: Record<What, string> = {
    pluck:
      'Pluck the braced string at its middle with a finger, three to five times, two seconds apart; hold the bow as for a shot.',
    shot: 'Shoot three to five arrows with the phone to the side, two seconds apart at least.',
    reference:
      'Drop one fixed thing from one height three times: it lets sessions of two places compare.',
  };
</script>

<WhenReady key="listen">
  {#snippet children(_, stage, found)}
    {@const first = found.checks.find((one) => one.state === 'heard')}
    <ListenHead {stage} page={found} />
    <div bind:this={result} tabindex="-1" class="arrives" role="region" aria-label="What was heard">
      {#if found.pair}
        <PairView page={found} {striking} />
      {:else}
        <p class="text-soft">
          {found.recordings.length
            ? 'One recording stands. Change one thing, record again at the same place, and the two are compared.'
            : 'Record the bow as it is; then change one thing and record it again.'}
        </p>
      {/if}
    </div>
    {#if striking.problem}<ProblemNote problem={striking.problem} id="problem-strike" />{/if}
    {#if found.recordings.length}
      <p class="mt-3">
        {#if first}First to look at: <strong>{first.name}</strong>, {tell(
            first.shows,
          )}.{:else}Nothing stands out in the order to look.{/if}
        <a class="quiet" href={pagePath(openRig.rig ?? '', 'listen/what')}>The whole list</a>
      </p>
    {/if}
    <section class="mt-5" aria-labelledby="next-recording">
      <h2 id="next-recording">{found.recordings.length ? 'Record again' : 'First recording'}</h2>
      <div class="mt-1 mb-2">
        <PickOne
          legend="What is recorded"
          options={[
            ['pluck', 'Pluck'],
            ['shot', 'Shot'],
            ['reference', 'Reference knock'],
          ]}
          value={what}
          pick={(one: What) => {
            keptSounds.as = one;
            fresh?.forget();
          }}
        />
      </div>
      <BringSound
        {what}
        how={HOW[what]}
        busy={listening.share !== null}
        faults={what === 'reference'
          ? []
          : ['rattle', 'slack', 'brace', 'light', 'contact', 'noisy', 'rides']}
        onbrought={(brought) => fresh && void listening.bring(brought, fresh.question)}
        onkept={(kept) => fresh && void listening.take(kept, fresh.question, true)}
      />
      <NewTakes
        bind:this={fresh}
        {listening}
        {what}
        bind:samePlace
        offerSame={Boolean(last)}
        onrecorded={() => {
          keptSounds.as = what;
          samePlace = true;
          void keptSounds.load();
          // what was recorded is compared over the form: there the eye goes
          void tick().then(() => lookAt(result));
        }}
      />
    </section>
    <Cautions {stage} />
  {/snippet}
</WhenReady>
