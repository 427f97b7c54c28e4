<script lang="ts">
  import { Toast } from '@skeletonlabs/skeleton-svelte';
  import { Router } from 'sv-router';
  import { toaster } from './lib/toaster';
  import './router';
</script>

<Router />

<Toast.Group {toaster}>
  {#snippet children(toast)}
    <Toast {toast} class="flex items-center gap-3 rounded bg-ink px-4 py-2 text-on-ink">
      <Toast.Message class="min-w-0">
        <Toast.Title class="font-semibold">{toast.title}</Toast.Title>
        {#if toast.description}
          <Toast.Description class="text-sm">{toast.description}</Toast.Description>
        {/if}
      </Toast.Message>
      {#if toast.action}
        <Toast.ActionTrigger
          class="bg-transparent px-2 py-1 font-semibold whitespace-nowrap underline"
        >
          {toast.action.label}
        </Toast.ActionTrigger>
      {/if}
      <Toast.CloseTrigger class="ml-1 p-1" aria-label="Close" />
    </Toast>
  {/snippet}
</Toast.Group>
