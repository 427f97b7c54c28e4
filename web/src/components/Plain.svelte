<script lang="ts">
  import type { Snippet } from 'svelte';
  import { keys } from '../lib/keys.svelte';
  import HeaderTools from './HeaderTools.svelte';
  import TermPopover from './TermPopover.svelte';
  import Wordmark from './Wordmark.svelte';

  let { children }: { children: Snippet } = $props();
</script>

<svelte:window onkeydown={keys.handle} />

<TermPopover />
<div class="flex min-h-dvh flex-col">
  <header class="flex items-center gap-3 border-b border-line px-5 py-1.5 max-md:px-3">
    <Wordmark />
    <HeaderTools />
  </header>
  <main class="mx-auto w-full max-w-5xl flex-1 px-5 py-8 max-md:px-3">{@render children()}</main>
  <footer class="border-t border-line px-5 py-3 text-sm text-soft">
    <a class="underline" href="/rules">Rulebook</a> ·
    <a class="underline" href="/words">Words</a> ·
    <a class="underline" href="/api-reference">API reference</a> · Makers' limits, range and club rules,
    local law, coaches, bowyers and physicians go before anything said here.
  </footer>
</div>
