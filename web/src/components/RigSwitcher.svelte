<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { Popover, Portal } from '@skeletonlabs/skeleton-svelte';
  import { api, type Assessment, type RigSummary } from '../lib/api';
  import { Asked } from '../lib/asked.svelte';
  import DidNotCome from './DidNotCome.svelte';
  import { nowPath } from '../lib/paths';
  import { route } from '../lib/navigation';
  import { tell } from '../lib/preferences.svelte';

  let { assessment }: { assessment: Assessment | null } = $props();

  const rigs = new Asked<RigSummary[]>();
  let open = $state(false);

  function change(next: boolean) {
    open = next;
    if (next) void rigs.ask(api.rigs);
  }

  const parts = $derived(
    assessment?.fitted
      .filter((part) => part.name && (part.part === 'archer' || part.part === 'arrow_set'))
      .map((part) => part.name)
      .join(' · '),
  );
  /** The page that is open, of another rig. */
  const samePage = (rig: string): string => {
    const page = route.pathname.split('/').slice(3).join('/');
    return page ? nowPath(rig).replace(/now$/, page) : nowPath(rig);
  };
  const others = $derived(rigs.data?.filter((rig) => !rig.put_away) ?? []);
</script>

<Popover {open} onOpenChange={(details) => change(details.open)}>
  <Popover.Trigger
    class="flex min-h-9 min-w-0 items-center gap-2 rounded border border-line bg-raised px-3 text-left"
  >
    <span class="sr-only">Change rig:</span>
    <span class="truncate font-semibold">{assessment?.name ?? 'Rigs'}</span>
    <span class="truncate text-sm text-soft max-md:hidden">{parts}</span>
    <ChevronDown size={16} aria-hidden="true" class="shrink-0" />
  </Popover.Trigger>
  <Portal>
    <Popover.Positioner class="z-30">
      <Popover.Content class="w-80 max-w-[90vw] rounded border border-line bg-raised p-2">
        <Popover.Title class="sr-only">Rigs</Popover.Title>
        {#if open}
          {#if rigs.problem}
            <div class="px-3">
              <DidNotCome problem={rigs.problem} again={() => rigs.ask(api.rigs)} />
            </div>
          {/if}
          <ul>
            {#each others as rig (rig.id)}
              <li>
                <a
                  class="block rounded px-3 py-2 hover:bg-faint"
                  href={samePage(rig.id)}
                  onclick={() => (open = false)}
                >
                  <span class="block font-semibold">{rig.name}</span>
                  <span class="text-sm text-soft">
                    {[rig.archer, rig.arrow_set].filter(Boolean).join(' · ')}
                  </span>
                  <span class="block text-sm">{tell(rig.next_title)}</span>
                </a>
              </li>
            {/each}
          </ul>
          <div class="mt-1 flex gap-4 border-t border-line px-3 pt-2">
            <a class="underline" href="/new" onclick={() => (open = false)}>New rig</a>
            <a class="underline" href="/" onclick={() => (open = false)}>All rigs</a>
            <a class="underline" href="/parts" onclick={() => (open = false)}>Parts</a>
          </div>
        {/if}
      </Popover.Content>
    </Popover.Positioner>
  </Portal>
</Popover>
