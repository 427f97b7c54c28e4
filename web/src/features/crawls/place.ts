/** The crawls' place: its pages, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

export const crawls = {
  key: 'crawls',
  name: 'Crawls',
  routes: {
    '/crawls': lazily(() => import('./Table.svelte')),
    '/crawls/plan': lazily(() => import('./Plan.svelte')),
    '/crawls/strip': lazily(() => import('./Strip.svelte')),
    '/crawls/compare': lazily(() => import('./Compare.svelte')),
    '/crawls/field': lazily(() => import('./Field.svelte')),
    '/crawls/range': lazily(() => import('./RangeError.svelte')),
  },
  controls: {},
} as const;
