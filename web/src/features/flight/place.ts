/** The flight's place: its pages, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

export const flight = {
  key: 'flight',
  name: 'Flight',
  routes: {
    '/flight': lazily(() => import('./Evidence.svelte')),
    '/flight/record': lazily(() => import('./Record.svelte')),
    '/flight/correct': lazily(() => import('./Correct.svelte')),
    '/flight/schools': lazily(() => import('./Schools.svelte')),
    '/flight/proved': lazily(() => import('./Proved.svelte')),
  },
  controls: {
    tail: 'flight/record',
    hits: 'flight/record',
    signs: 'flight/record',
    trial: 'flight/record',
    kit: 'flight/record',
    correct: 'flight/correct',
    after: 'flight/correct',
  },
} as const;
