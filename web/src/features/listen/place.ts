/** The place where sound is listened to: its pages, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

export const listen = {
  key: 'listen',
  name: 'Listen',
  routes: {
    '/listen': lazily(() => import('./BeforeAfter.svelte')),
    '/listen/what': lazily(() => import('./WhatIsIt.svelte')),
    '/listen/speed': lazily(() => import('./Speed.svelte')),
    '/listen/taps': lazily(() => import('./Taps.svelte')),
    '/listen/recordings': lazily(() => import('./Recordings.svelte')),
  },
  controls: {
    checks: 'listen/what',
    recordings: 'listen/recordings',
    shafts: 'listen/taps',
    speed: 'listen/speed',
  },
} as const;
