/** The flight's place: its pages, and the controls not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./Evidence.svelte'));

export const flight = {
  key: 'flight',
  name: 'Flight',
  routes: {
    '/flight': first,
    '/flight/evidence': first,
    '/flight/record': lazily(() => import('./Record.svelte')),
    '/flight/correct': lazily(() => import('./Correct.svelte')),
    '/flight/schools': lazily(() => import('./Schools.svelte')),
    '/flight/proved': lazily(() => import('./Proved.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['evidence', 'Evidence'],
    ['record', 'Record'],
    ['correct', 'Correct'],
    ['schools', 'Schools'],
    ['proved', 'How good?'],
  ],
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
