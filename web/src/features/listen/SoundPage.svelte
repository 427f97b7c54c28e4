<script lang="ts">
  import { onMount, type ComponentProps, type Snippet } from 'svelte';
  import Cautions from '../../components/Cautions.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
  import type { PageOf } from '../../lib/api';
  import BringSound from './BringSound.svelte';
  import type { Listening, Question } from './hearing.svelte';
  import { keptSounds } from './kept.svelte';
  import ListeningState from './ListeningState.svelte';
  import ListenHead from './ListenHead.svelte';

  /** A page that is brought a recording, listens to it, and shows what it found. */
  let {
    listening,
    question,
    ready,
    problem,
    onfresh,
    fields,
    heard,
    ...bring
  }: {
    listening: Listening;
    question: Question;
    /** What it needs to know is told. */
    ready: boolean;
    /** Id of what went wrong. */
    problem: string;
    /** Another recording comes: what was said of the last one is over. */
    onfresh: () => void;
    fields: Snippet<[PageOf<'listen'>]>;
    heard: Snippet<[PageOf<'listen'>]>;
  } & Pick<ComponentProps<typeof BringSound>, 'what' | 'how' | 'pretend' | 'faults'> = $props();

  onMount(() => {
    void keptSounds.load();
    const kept = keptSounds.handed();
    if (kept) void listening.take(kept, question);
  });
</script>

<WhenReady key="listen">
  {#snippet children(_, stage, page)}
    <ListenHead {stage} {page} />
    {@render fields(page)}
    <BringSound
      {...bring}
      busy={listening.share !== null || !ready}
      onbrought={(brought) => {
        onfresh();
        void listening.bring(brought, question);
      }}
      onkept={(kept) => {
        onfresh();
        void listening.take(kept, question, true);
      }}
    />
    <ListeningState {listening} {question} id={problem} />
    {@render heard(page)}
    <Cautions {stage} />
  {/snippet}
</WhenReady>
