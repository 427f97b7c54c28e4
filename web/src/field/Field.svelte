<script lang="ts">
  import Choose from './Choose.svelte';
  import GiveBack from './GiveBack.svelte';
  import Status from './Status.svelte';
  import TabDrawing from './TabDrawing.svelte';
  import Tape from './Tape.svelte';
  import { stayAwake } from './awake.svelte';
  import type { Struck } from './learn';
  import type { Round } from './round.svelte';
  import { counted, far, inFigures, perUnit, steps } from './words';

  let { round }: { round: Round } = $props();

  const FURTHER = 5;
  const DEEPEST_MM = 120;
  const awake = stayAwake();

  let distance = $state(20);
  let typing = $state(false);
  let open = $state<'target' | 'give' | 'choose' | 'more'>('target');
  let inCm = $state(false);
  let cm = $state(10);
  let said = $state('');

  const table = $derived(round.table);
  const unit = $derived(table?.unit ?? 'm');
  const per = $derived(table ? perUnit(table) : 1);
  const least = $derived(Math.ceil((round.learner?.nearest_m ?? 2) / per));
  const most = $derived(Math.floor((round.learner?.furthest_m ?? 60) / per));
  const metres = $derived(distance * per);
  const known = $derived(round.learner?.at(metres) ?? null);
  const step = $derived(round.step);
  const beyond = $derived(known !== null && known.crawl_mm < 0);
  const deep = $derived(known !== null && known.crawl_mm > DEEPEST_MM);
  const count = $derived(known && step ? counted(known.crawl_mm, step) : 0);
  /** Beyond point-on the aim goes over the mark by so much. */
  const over_mm = $derived(
    known && round.learner && beyond ? -known.crawl_mm * round.learner.highPerMm(metres) : 0,
  );
  const off_cm = $derived(
    known && round.learner ? (known.half_mm * round.learner.highPerMm(metres)) / 10 : 0,
  );
  const others = $derived(
    known && table
      ? table.steps
          .filter((one) => one !== step && one.notation !== 'mm')
          .map((one) => ({
            count: inFigures(counted(known.crawl_mm, one)),
            words: one.notation,
          }))
      : [],
  );
  /** Only the rig says so, and not well. */
  const rough = $derived(
    known !== null && table !== null && table.marks === 0 && known.half_mm > table.steps[0]!.mm / 4,
  );
  const last = $derived(round.standing.at(-1) ?? null);
  const target = $derived(round.standing.length + 1);

  const clamp = (value: number) => Math.min(Math.max(Math.round(value), least), most);
  function go(to: number) {
    distance = clamp(to);
    if (to < least || to > most) said = `The table goes from ${least} to ${most} ${unit}.`;
    else said = '';
  }
  function typed(event: Event) {
    const value = Number((event.currentTarget as HTMLInputElement).value);
    typing = false;
    if (Number.isFinite(value) && value > 0) go(value);
  }

  const WAYS = [
    { struck: 'high', label: 'High', then: 'crawl deeper', y: 7 },
    { struck: 'fine', label: 'Fine', then: 'keep it', y: 13 },
    { struck: 'low', label: 'Low', then: 'crawl less', y: 19 },
  ] as const;

  function log(struck: Struck) {
    if (!step) return;
    // beyond point-on the arrow was aimed over the mark: from there it is told how far it fell
    if (beyond && struck !== 'fine' && !inCm) {
      inCm = true;
      said = 'Aimed over the mark: say how many cm.';
      return;
    }
    const way = struck === 'high' ? 1 : struck === 'low' ? -1 : 0;
    const figure = inCm || beyond;
    round.log({
      distance_m: metres,
      count,
      notation: step.notation,
      struck: figure && (way !== 0 || beyond) ? null : struck,
      high_mm: figure && (way !== 0 || beyond) ? Math.round(way * cm * 10 - over_mm) : null,
      arrows: round.arrows,
      guessed: round.guessed,
    });
    said = '';
    inCm = false;
  }
  const wordsOf = (shot: NonNullable<typeof last>) => {
    const where = table ? far(shot.distance_m, table) : '';
    const how =
      shot.struck ??
      `${Math.abs(shot.high_mm ?? 0) / 10} cm ${(shot.high_mm ?? 0) < 0 ? 'low' : 'high'}`;
    const crawl = `${inFigures(shot.count)} ${shot.notation}`;
    return `Target ${round.standing.length}: ${where}, ${crawl}, ${how}.`;
  };
</script>

<div class="page">
  <header>
    <div>
      <h1>{table ? `${table.name}, ${table.arrows}` : 'Crawls in the field'}</h1>
      {#if table}<p class="soft">{table.held}</p>{/if}
    </div>
    {#if round.link === 'carried'}
      <button class="leave" onclick={() => (open = open === 'give' ? 'target' : 'give')}
        >Shots</button
      >
    {:else}
      <a class="leave" href={`/rigs/${round.rig}/crawls/field`}>Leave</a>
    {/if}
  </header>
  <Status
    {round}
    {target}
    dims={awake.refused}
    onchoose={() => (open = 'choose')}
    ongive={() => (open = 'give')}
  />

  {#if !table || !known || !step}
    <main class="none">
      {#if round.problem}<p>{round.problem}</p>
      {:else if round.link === 'away'}
        <p>The bench does not answer, and no table was opened here before.</p>
      {:else}<p aria-busy="true">One moment…</p>{/if}
    </main>
  {:else if open === 'give'}
    <main><GiveBack {round} onclose={() => (open = 'target')} /></main>
  {:else if open === 'choose'}
    <main><Choose {round} onclose={() => (open = 'target')} /></main>
  {:else}
    <main class="target">
      <section class="shown" class:left={table.hand === 'left'} aria-label="Crawl for this shot">
        <TabDrawing crawl_mm={Math.max(known.crawl_mm, 0)} half_mm={known.half_mm} {step} />
        <div class="figure" aria-live="polite">
          <p class="soft">crawl for this shot</p>
          <p class="huge" class:long={inFigures(count).length > 2}>{inFigures(count)}</p>
          <p class="unit">{steps(count, step.notation)}</p>
          {#if beyond}
            <p class="plain">aim {Math.round(over_mm / 10)} cm over</p>
          {:else if deep}
            <p class="plain warn">deeper than a hand reaches: come nearer or aim under</p>
          {:else}
            <p class="plain">
              {#if step.notation !== 'mm'}{known.crawl_mm.toFixed(0)}{/if}
              ± {Math.max(known.half_mm, 1).toFixed(0)} mm
            </p>
            {#each others as other (other.words)}
              <p class="soft">{other.count} {other.words}</p>
            {/each}
          {/if}
          {#if rough}<p class="soft">from the rig alone</p>{/if}
          {#if known.further_mm != null}
            <p class="soft further">
              {FURTHER}
              {unit} further off:<br />{Math.abs(known.further_mm / 10).toFixed(0)} ± {off_cm.toFixed(
                0,
              )} cm low
            </p>
          {/if}
        </div>
      </section>

      <section class="where" aria-label="Distance">
        <button class="by" aria-label={`One ${unit} nearer`} onclick={() => go(distance - 1)}
          >−</button
        >
        <div class="distance">
          {#if typing}
            <!-- svelte-ignore a11y_autofocus -->
            <input
              type="number"
              inputmode="numeric"
              aria-label="Distance"
              min={least}
              max={most}
              value={distance}
              autofocus
              onchange={typed}
              onblur={() => (typing = false)}
            />
          {:else}
            <button class="quiet number" onclick={() => (typing = true)}>{distance} {unit}</button>
          {/if}
          <button
            class="quiet kind"
            aria-pressed={round.guessed}
            aria-label="Guessed distance"
            onclick={() => round.choose({ guessed: !round.guessed })}
          >
            <span class:on={round.guessed}>guessed</span> ·
            <span class:on={!round.guessed}>marked</span>
          </button>
        </div>
        <button class="by" aria-label={`One ${unit} further`} onclick={() => go(distance + 1)}
          >+</button
        >
      </section>
      <Tape value={distance} {least} {most} {unit} onmove={go} />

      <section aria-labelledby="struck-title">
        <div class="between">
          <h2 id="struck-title">Where did it strike?</h2>
          <button
            class="quiet"
            aria-expanded={open === 'more'}
            onclick={() => (open = open === 'more' ? 'target' : 'more')}
          >
            {round.arrows} arrow{round.arrows === 1 ? '' : 's'}
          </button>
          <button class="quiet" aria-pressed={inCm} onclick={() => (inCm = !inCm)}
            >how many cm</button
          >
        </div>
        {#if open === 'more'}
          <div class="more">
            <span id="arrows-title">Arrows a target</span>
            {#each [1, 2, 3, 4, 6] as number (number)}
              <button
                aria-pressed={round.arrows === number}
                onclick={() => round.choose({ arrows: number })}>{number}</button
              >
            {/each}
            {#if table.steps.length > 1}
              <span>Counted in</span>
              {#each table.steps as one (one.notation)}
                <button
                  aria-pressed={step.notation === one.notation}
                  onclick={() => round.choose({ notation: one.notation })}>{one.notation}</button
                >
              {/each}
            {/if}
          </div>
        {/if}
        {#if inCm}
          <div class="cm">
            <button aria-label="Less" onclick={() => (cm = Math.max(cm - (cm > 20 ? 5 : 2), 2))}
              >−</button
            >
            <output>{cm} cm</output>
            <button aria-label="More" onclick={() => (cm = Math.min(cm + (cm >= 20 ? 5 : 2), 150))}
              >+</button
            >
          </div>
        {/if}
        <div class="ways">
          {#each WAYS as way (way.struck)}
            <button onclick={() => log(way.struck)}>
              <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
                <circle cx="13" cy="13" r="12" />
                <path d="M4 13h18" />
                <circle class="hit" cx="13" cy={way.y} r="4.5" />
              </svg>
              <strong>{way.label}</strong>
              <span class="soft">{inCm && way.struck !== 'fine' ? `${cm} cm` : way.then}</span>
            </button>
          {/each}
        </div>
      </section>
    </main>
    <footer>
      <p role="status">
        {#if said}{said}{:else if last}{wordsOf(last)} Kept.{:else}Tap where it struck: each shot is
          kept.{/if}
      </p>
      {#if last && !said}
        <button class="quiet" onclick={() => round.takeBack(last.id)}>take back</button>
      {/if}
    </footer>
  {/if}
</div>

<style>
  .page {
    display: grid;
    grid-template-rows: auto auto 1fr auto;
    width: min(100%, 30rem);
    height: 100dvh;
    min-height: 30rem;
    margin-inline: auto;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.75rem;
    padding: 0.5rem 0.75rem;
  }
  h1 {
    font-size: 1rem;
    line-height: 1.2;
  }
  .leave {
    display: grid;
    place-items: center;
    min-width: 4rem;
    min-height: 2.5rem;
    border: 1px solid var(--ink);
    border-radius: 4px;
    color: inherit;
    text-decoration: none;
  }
  main {
    min-height: 0;
    overflow: auto;
  }
  .none {
    display: grid;
    place-items: center;
    padding: 2rem;
    text-align: center;
  }
  .target {
    display: flex;
    flex-direction: column;
    justify-content: space-between;
    gap: 0.35rem;
    padding: 0.5rem 0.75rem;
  }
  .target > :global(*) {
    flex-shrink: 0;
  }
  .shown {
    display: grid;
    grid-template-columns: 7rem 1fr;
    gap: 1rem;
    flex: 1 0 16rem;
    max-height: 24rem;
  }
  .shown.left {
    direction: rtl;
  }
  .shown > :global(*) {
    direction: ltr;
    min-height: 0;
  }
  .huge {
    font-size: clamp(5rem, 34vw, 11rem);
    line-height: 0.95;
    font-weight: 800;
    letter-spacing: -0.02em;
  }
  .huge.long {
    font-size: clamp(4rem, 22vw, 7rem);
    line-height: 1.2;
  }
  .unit {
    font-size: 1.5rem;
    font-weight: 700;
  }
  .plain {
    font-size: 1.25rem;
    font-weight: 600;
  }
  .warn {
    color: var(--amber);
  }
  .further {
    margin-top: 0.5rem;
  }
  .where {
    display: grid;
    grid-template-columns: 4rem 1fr 4rem;
    align-items: center;
  }
  .by {
    height: 3.5rem;
    font-size: 1.75rem;
    font-weight: 700;
  }
  .distance {
    display: grid;
    justify-items: center;
  }
  .distance .number {
    font-size: 2.3rem;
    font-weight: 700;
    line-height: 1;
    padding: 0.1rem 0.5rem;
  }
  .distance input {
    width: 6.5rem;
    font-size: 2.1rem;
    font-weight: 700;
    text-align: center;
    background: var(--raised);
    border: 1px solid var(--ink);
    user-select: text;
  }
  .kind {
    color: var(--soft);
    min-height: 1.6rem;
    padding-block: 0.15rem;
  }
  .kind .on {
    color: var(--ink);
    font-weight: 700;
  }
  .between {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
  h2 {
    font-size: 1rem;
    font-weight: 400;
    color: var(--soft);
  }
  .ways {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 0.5rem;
  }
  .ways button {
    display: grid;
    grid-template-columns: auto auto;
    justify-content: center;
    align-items: center;
    align-content: center;
    gap: 0.25rem 0.5rem;
    min-height: 5.5rem;
  }
  .ways strong {
    font-size: 1.4rem;
  }
  .ways span {
    grid-column: 1 / -1;
  }
  .ways circle,
  .ways path {
    fill: none;
    stroke: var(--soft);
  }
  .ways .hit {
    fill: var(--ink);
    stroke: none;
  }
  .cm {
    display: grid;
    grid-template-columns: 4rem 1fr 4rem;
    text-align: center;
    align-items: center;
    margin-bottom: 0.5rem;
  }
  .cm button {
    height: 3rem;
    font-size: 1.5rem;
  }
  .cm output {
    font-size: 1.5rem;
    font-weight: 700;
  }
  .more {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    align-items: center;
    padding-bottom: 0.5rem;
  }
  .more span {
    width: 100%;
    color: var(--soft);
  }
  .more button {
    min-width: 3rem;
    min-height: 2.5rem;
  }
  .more [aria-pressed='true'] {
    background: var(--ink);
    color: var(--on-ink);
  }
  footer {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.75rem;
    min-height: 3rem;
    padding: 0.1rem 0.75rem;
    background: var(--raised);
    border-top: 1px solid var(--line);
  }
  footer p {
    color: var(--green);
  }
  @media (max-height: 700px) {
    .shown {
      flex-basis: 9rem;
      max-height: 16rem;
    }
    .shown > :global(svg) {
      height: 9rem;
    }
    .huge {
      font-size: 4rem;
    }
    .huge.long {
      font-size: 3.2rem;
    }
    .further {
      display: none;
    }
    .ways button {
      min-height: 5rem;
    }
  }
</style>
