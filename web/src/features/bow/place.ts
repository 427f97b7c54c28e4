/** The bow's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./Bow.svelte'));

export const bow = {
  key: 'bow',
  name: 'Bow',
  routes: {
    '/bow': first,
    '/bow/bench': first,
    '/bow/choose': lazily(() => import('./Choose.svelte')),
    '/bow/energy': lazily(() => import('./Energy.svelte')),
    '/bow/condition': lazily(() => import('./Condition.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['bench', 'Bench'],
    ['choose', 'Choose'],
    ['energy', 'Energy'],
    ['condition', 'Condition'],
  ],
  controls: {
    board: 'bow/choose',
    speed: 'bow/energy',
    inspection: 'bow/condition',
    limbs: 'bow/condition',
  },
} as const;
