/** The arrow's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

const first = lazily(() => import('./Arrow.svelte'));

export const arrow = {
  key: 'arrow',
  name: 'Arrow',
  routes: {
    '/arrow': first,
    '/arrow/match': first,
    '/arrow/build': lazily(() => import('./Build.svelte')),
    '/arrow/try': lazily(() => import('./Try.svelte')),
    '/arrow/taper': lazily(() => import('./Taper.svelte')),
    '/arrow/quiver': lazily(() => import('./Quiver.svelte')),
  },
  /** Tabs by their address, the first one first. */
  pages: [
    ['match', 'Match'],
    ['build', 'Build'],
    ['try', 'Try'],
    ['taper', 'Taper'],
    ['quiver', 'Quiver'],
  ],
  controls: {
    arrow: 'arrow/build',
    masses: 'arrow/build',
    lengthtaken: 'arrow/build',
    material: 'arrow/build',
    shaft: 'arrow/build',
    point: 'arrow/build',
    spine: 'arrow/build',
    window: 'arrow/build',
    taper: 'arrow/taper',
    quiver: 'arrow/quiver',
    matched: 'arrow/quiver',
  },
} as const;
