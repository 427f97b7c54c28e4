/** The string's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

export const string = {
  key: 'string',
  name: 'String',
  routes: {
    '/string': lazily(() => import('./Sheet.svelte')),
    '/string/settling': lazily(() => import('./Settling.svelte')),
    '/string/turns': lazily(() => import('./Turns.svelte')),
    '/string/brace': lazily(() => import('./Brace.svelte')),
  },
  controls: {
    settling: 'string/settling',
    turns: 'string/turns',
    brace: 'string/brace',
    bracerange: 'string/brace',
  },
} as const;
