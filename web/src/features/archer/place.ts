/** The archer's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

export const archer = {
  key: 'archer',
  name: 'Archer',
  routes: {
    '/archer': lazily(() => import('./Archer.svelte')),
  },
  pages: [],
  controls: {},
} as const;
