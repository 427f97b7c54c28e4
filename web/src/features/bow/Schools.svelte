<script lang="ts">
  import type { FamilyBoard } from '../../lib/api';
  import { tell } from '../../lib/preferences.svelte';

  let { family }: { family: FamilyBoard } = $props();

  const speaking = $derived(family.schools.filter((school) => school.low_mm != null));
  const silent = $derived(family.schools.filter((school) => school.low_mm == null));
</script>

<section aria-labelledby="schools" class="mt-4">
  <p class="text-[1.1rem] font-semibold">{tell(family.summary)}</p>
  <h2 id="schools" class="sr-only">What each school says</h2>
  <dl class="schools">
    {#each speaking as school (school.school)}
      <div>
        <dt class="font-semibold">
          {school.name}
          {#if school.preferred}<span class="text-sm font-normal text-green">the one we prefer</span
            >{/if}
        </dt>
        <dd>
          {tell(school.says)}
          {#if school.gives_up}
            <span class="block text-sm text-soft">{tell(school.gives_up)}</span>
          {/if}
        </dd>
      </div>
    {/each}
  </dl>
  {#if family.speed_says}
    <p class="mt-2 text-sm text-soft">{tell(family.speed_says)}</p>
  {/if}
  {#if silent.length}
    <p class="mt-2 text-sm text-soft">
      {silent.map((school) => `${school.name}: ${tell(school.says)}`).join(' ')}
    </p>
  {/if}
</section>

<style>
  .schools {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr));
    gap: 0.6rem 1.5rem;
    margin-top: 0.5rem;
  }
</style>
