<script lang="ts">
  import DidNotCome from '../../components/DidNotCome.svelte';
  import { api, type OwnWords, type Problem } from '../../lib/api';
  import { Asked } from '../../lib/asked.svelte';

  let { search }: { search: string } = $props();

  const own = new Asked<OwnWords>();
  const load = () => own.ask(api.ownWords);
  let problem = $state.raw<Problem | null>(null);
  let sure = $state(false);
  const meets = (text: string) => text.toLowerCase().includes(search.toLowerCase().trim());
  const taught = $derived(own.data?.taught.filter((one) => meets(one.phrase + one.line)) ?? []);
  const refused = $derived(own.data?.refused.filter((one) => meets(one.line)) ?? []);

  void load();

  async function change(call: () => Promise<{ problem?: Problem | undefined }>) {
    problem = (await call()).problem ?? null;
    sure = false;
    await load();
  }
</script>

<section class="mt-6 rounded border border-line bg-raised px-5 py-4" aria-labelledby="own-words">
  <h2 id="own-words">This bench's own words</h2>
  {#if own.problem ?? problem}
    {@const said = (own.problem ?? problem) as Problem}
    <DidNotCome problem={said} again={load} />
  {/if}
  {#if own.data}
    {#each taught as one (one.id)}
      <p class="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5">
        <span class="font-semibold">“{one.phrase}”</span>
        <span>is {one.word}: {one.stands_for}</span>
        <span class="text-sm text-soft">
          learnt from “{one.line}”{one.fits ? '' : '; no word of the table any more'}
        </span>
        <button type="button" class="quiet" onclick={() => void change(() => api.unteach(one.id))}>
          take away <span class="sr-only">{one.phrase}</span>
        </button>
      </p>
    {:else}
      <p class="text-soft">
        {search
          ? 'None of them is called so.'
          : 'None yet: it learns from lines it did not understand.'}
      </p>
    {/each}
    <h3 class="mt-4 text-[1.05rem] font-semibold">Lines it did not understand</h3>
    <label class="mt-1 flex min-h-9 items-center gap-2">
      <input
        type="checkbox"
        checked={own.data.keeps}
        onchange={(event) => {
          const keep = event.currentTarget.checked;
          void change(() => api.keepsRefused(keep));
        }}
      />
      keep them, on this machine only: nothing is ever sent
    </label>
    {#each refused as one (one.id)}
      <p class="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5">
        <span class="min-w-0 break-words">{one.line}</span>
        {#if one.times > 1}<span class="text-sm text-soft">{one.times} times</span>{/if}
        <button
          type="button"
          class="quiet"
          onclick={() => void change(() => api.wipeRefused(one.id))}
        >
          forget <span class="sr-only">{one.line}</span>
        </button>
      </p>
    {:else}
      <p class="text-soft">None is kept.</p>
    {/each}
    {#if own.data.refused.length}
      <p class="mt-3">
        {#if sure}
          <button
            type="button"
            class="act act-strong"
            onclick={() => void change(() => api.wipeRefused(null))}
          >
            Wipe all {own.data.refused.length}, for good
          </button>
          <button type="button" class="quiet ml-2" onclick={() => (sure = false)}>keep them</button>
        {:else}
          <button type="button" class="act" onclick={() => (sure = true)}>Wipe them all</button>
        {/if}
      </p>
    {/if}
  {/if}
</section>
