/** The bow's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

export const bow = {
  key: 'bow',
  name: 'Bow',
  routes: {
    '/bow': lazily(() => import('./Bow.svelte')),
    '/bow/choose': lazily(() => import('./Choose.svelte')),
    '/bow/energy': lazily(() => import('./Energy.svelte')),
    '/bow/condition': lazily(() => import('./Condition.svelte')),
  },
  controls: {
    board: 'bow/choose',
    speed: 'bow/energy',
    inspection: 'bow/condition',
    limbs: 'bow/condition',
  },
} as const;
