import { createToaster } from '@skeletonlabs/skeleton-svelte';

export const toaster = createToaster({ placement: 'bottom', duration: 6000, offsets: '72px' });
