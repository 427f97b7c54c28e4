/** The place where sound is listened to: its pages, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./BeforeAfter.svelte'));

export const listen = {
  key: 'listen',
  name: 'Listen',
  routes: {
    '/listen': first,
    '/listen/compare': first,
    '/listen/what': lazily(() => import('./WhatIsIt.svelte')),
    '/listen/speed': lazily(() => import('./Speed.svelte')),
    '/listen/taps': lazily(() => import('./Taps.svelte')),
    '/listen/recordings': lazily(() => import('./Recordings.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['compare', 'Before and after', 'Compare'],
    ['what', 'What is it?'],
    ['speed', 'Speed'],
    ['taps', 'Tap a dozen', 'Taps'],
    ['recordings', 'Recordings'],
  ],
  controls: {
    checks: 'listen/what',
    recordings: 'listen/recordings',
    shafts: 'listen/taps',
    speed: 'listen/speed',
  },
} as const;
