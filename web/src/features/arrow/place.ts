/** The arrow's place: its pages, and the controls that are not on the first of them. */
export const arrow = {
  key: 'arrow',
  name: 'Arrow',
  routes: {
    '/arrow': () => import('./Arrow.svelte'),
    '/arrow/build': () => import('./Build.svelte'),
    '/arrow/try': () => import('./Try.svelte'),
    '/arrow/taper': () => import('./Taper.svelte'),
    '/arrow/quiver': () => import('./Quiver.svelte'),
  },
  controls: {
    arrow: 'arrow/build',
    masses: 'arrow/build',
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
