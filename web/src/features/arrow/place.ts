/** The arrow's place: its pages, and the controls that are not on the first of them. */
import { lazily } from '../../lib/lazily';

export const arrow = {
  key: 'arrow',
  name: 'Arrow',
  routes: {
    '/arrow': lazily(() => import('./Arrow.svelte')),
    '/arrow/build': lazily(() => import('./Build.svelte')),
    '/arrow/try': lazily(() => import('./Try.svelte')),
    '/arrow/taper': lazily(() => import('./Taper.svelte')),
    '/arrow/quiver': lazily(() => import('./Quiver.svelte')),
  },
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
