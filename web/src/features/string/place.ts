/** The string's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./Sheet.svelte'));

export const string = {
  key: 'string',
  name: 'String',
  routes: {
    '/string': first,
    '/string/sheet': first,
    '/string/settling': lazily(() => import('./Settling.svelte')),
    '/string/turns': lazily(() => import('./Turns.svelte')),
    '/string/brace': lazily(() => import('./Brace.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['sheet', 'Sheet'],
    ['settling', 'Settling'],
    ['turns', 'Turns'],
    ['brace', 'Brace'],
  ],
  controls: {
    settling: 'string/settling',
    turns: 'string/turns',
    brace: 'string/brace',
    bracerange: 'string/brace',
  },
} as const;
