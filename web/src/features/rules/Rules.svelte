<script lang="ts">
  import { STAGES } from '../../stages';
  import { tick } from 'svelte';
  import DidNotCome from '../../components/DidNotCome.svelte';
  import Plain from '../../components/Plain.svelte';
  import { api, type Rule } from '../../lib/api';
  import { tell } from '../../lib/preferences.svelte';
  import { Asked } from '../../lib/asked.svelte';

  const asked = new Asked<Rule[]>();
  const rules = $derived(asked.data ?? []);
  document.title = 'Rulebook · Lyrandis';

  void load();

  async function load() {
    if (!(await asked.ask(api.rules))) return;
    await tick();
    const wanted = document.getElementById(decodeURIComponent(location.hash.slice(1)));
    wanted?.scrollIntoView();
    wanted?.focus();
  }
</script>

<Plain>
  <h1>Rulebook</h1>
  <p class="text-soft">What Lyrandis judges by, who holds it, and what it rests on.</p>
  {#if asked.problem}
    <DidNotCome problem={asked.problem} again={load} />
  {/if}
  {#each STAGES as { key, name } (key)}
    <section class="mt-8" aria-labelledby="rules-{key}">
      <h2 id="rules-{key}" class="border-b border-line pb-1">{name}</h2>
      {#each rules.filter((rule) => rule.stage === key) as rule (rule.id)}
        <article id={rule.id} tabindex="-1" class="scroll-mt-4 border-b border-line py-4">
          <h3 class="text-[1.1rem] font-semibold">{rule.title}</h3>
          <p class="mt-1 max-w-3xl">{tell(rule.statement)}</p>
          <p class="mt-1 max-w-3xl text-sm text-soft">{tell(rule.school)}. {tell(rule.source)}</p>
        </article>
      {/each}
    </section>
  {/each}
</Plain>
