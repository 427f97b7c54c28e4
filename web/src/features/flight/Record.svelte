<script lang="ts">
  import Cautions from '../../components/Cautions.svelte';
  import ChoiceField from '../../components/ChoiceField.svelte';
  import ReadingField from '../../components/ReadingField.svelte';
  import TakeBack from '../../components/TakeBack.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import type { PageOf } from '../../lib/api';
  import { CARES } from '../../lib/choices';
  import { figure, tell } from '../../lib/preferences.svelte';
  import { spine } from '../../lib/units';
  import { openRig } from '../../lib/openrig.svelte';
  import FlightHead from './FlightHead.svelte';
  import HitsForm from './HitsForm.svelte';
  import Signs from './Signs.svelte';
  import TailForm from './TailForm.svelte';
  import TrialBar from './TrialBar.svelte';
  import { partOf } from '../../lib/doing.svelte';

  /** What the next step asks to be shot: the forms open on it. */
  const asked = (page: PageOf<'flight'>) =>
    page.asked ? `${page.asked.sees} ${page.asked.distance_m} ${page.asked.arrows}` : '';
  const FELT = [
    ['yes', 'to hand'],
    ['no', 'none'],
  ] as const;
  const BARE = [
    ['yes', 'there are some'],
    ['no', 'none: not shot bare'],
  ] as const;
</script>

<WhenReady key="flight">
  {#snippet children(_, stage, page)}
    <FlightHead
      {stage}
      {page}
      about="What you see, not what it means: that is said once it is recorded."
    />
    <TrialBar {page} />
    {#key asked(page)}
      <div class="forms">
        <TailForm {page} />
        <HitsForm {page} />
      </div>
    {/key}
    <Signs {page} />
    <div class="mt-4 grid gap-6 lg:grid-cols-[1.2fr_1fr]">
      <section aria-labelledby="seen-title">
        <h2 id="seen-title">Seen with these parts</h2>
        {#if page.seen.length}
          <ul class="seen">
            {#each page.seen.toReversed() as one (one.entry_id)}
              <li>
                <span>{tell(one.says)}</span>
                <TakeBack entry={one.entry_id} what={tell(one.says)} />
              </li>
            {/each}
          </ul>
        {:else}
          <p class="mt-1 text-soft">Nothing yet. Three fletched arrows at 2.3 m are a start.</p>
        {/if}
      </section>
      <section aria-labelledby="kit-title">
        <h2 id="kit-title">To hand</h2>
        <div class="mt-1 grid grid-cols-2 gap-3">
          <ChoiceField
            control="kit"
            label="Bare shafts of this set"
            choice={page.bare_shafts == null ? null : page.bare_shafts ? 'yes' : 'no'}
            options={BARE}
            draft={(choice) => ({
              subject: { kind: 'rig', id: openRig.rig ?? '' },
              reading: { kind: 'flight_kit', bare_shafts: choice === 'yes' },
            })}
          />
          <ChoiceField
            control="felt"
            label="Felt or powder"
            choice={page.felt == null ? null : page.felt ? 'yes' : 'no'}
            options={FELT}
            draft={(choice) => ({
              subject: { kind: 'rig', id: openRig.rig ?? '' },
              reading: { kind: 'flight_kit', felt: choice === 'yes' },
            })}
          />
          <ReadingField
            control="range"
            label="The furthest you can shoot"
            word="range"
            example="30 m"
            shown={page.longest_m == null ? null : `${Math.round(page.longest_m * 10) / 10} m`}
          />
          <ReadingField
            control="borrow"
            label="Other shafts to borrow"
            word="borrow"
            example="57 lb"
            shown={page.other_shafts_lbf == null ? null : figure(spine(page.other_shafts_lbf))}
          />
          <ReadingField
            control="change"
            label="Change something for a trial"
            word="trial"
            example={'brace {1/4} down'}
            shown={page.trial_says ? tell(page.trial_says) : null}
          />
          <ChoiceField
            control="care"
            label="Your shooting"
            choice={page.care}
            options={CARES}
            draft={(care) => {
              const id = partOf('archer');
              return id
                ? { subject: { kind: 'archer', id }, reading: { kind: 'shot_care', care } }
                : null;
            }}
          />
        </div>
        <p class="mt-2 text-sm text-soft">
          Spread at 18 m: {Math.round(100 * page.scatter_m)} cm an arrow, {page.scatter_learned
            ? 'from your own groups'
            : 'taken until your groups say it'}.
        </p>
      </section>
    </div>
    <Cautions {stage} />
  {/snippet}
</WhenReady>

<style>
  .forms {
    display: grid;
    gap: 1rem 2rem;
    grid-template-columns: minmax(0, 1.45fr) minmax(0, 1fr);
  }
  .seen li {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 1rem;
    border-bottom: 1px solid var(--line);
    padding: 0.3rem 0;
  }
  @media (max-width: 1100px) {
    .forms {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
