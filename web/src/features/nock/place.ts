/** The nock's place: its pages, the order of work, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./Height.svelte'));

export const nock = {
  key: 'nock',
  name: 'Nock',
  routes: {
    '/nock': first,
    '/nock/height': first,
    '/nock/tiller': lazily(() => import('./Tiller.svelte')),
    '/nock/alignment': lazily(() => import('./Alignment.svelte')),
    '/nock/weights': lazily(() => import('./Weights.svelte')),
    '/order': lazily(() => import('../order/Order.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['height', 'Height'],
    ['tiller', 'Tiller and bolts'],
    ['alignment', 'Alignment'],
    ['weights', 'Weights'],
  ],
  controls: {
    tiller: 'nock/tiller',
    kit: 'nock/tiller',
    alignment: 'nock/alignment',
    weights: 'nock/weights',
    order: 'order',
  },
} as const;
