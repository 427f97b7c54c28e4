/** The crawls' place: its pages, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./Table.svelte'));

export const crawls = {
  key: 'crawls',
  name: 'Crawls',
  routes: {
    '/crawls': first,
    '/crawls/table': first,
    '/crawls/plan': lazily(() => import('./Plan.svelte')),
    '/crawls/strip': lazily(() => import('./Strip.svelte')),
    '/crawls/compare': lazily(() => import('./Compare.svelte')),
    '/crawls/field': lazily(() => import('./Field.svelte')),
    '/crawls/range': lazily(() => import('./RangeError.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['table', 'Table'],
    ['range', 'Range error'],
    ['plan', 'Plan'],
    ['compare', 'Compare'],
    ['strip', 'Tab strip'],
    ['field', 'Field'],
  ],
  controls: {},
} as const;
