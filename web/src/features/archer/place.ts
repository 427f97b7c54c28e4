/** The archer's place: its pages, and the controls that are not on the first of them. */
export const archer = {
  key: 'archer',
  name: 'Archer',
  routes: {
    '/archer': () => import('./Archer.svelte'),
  },
  controls: {},
} as const;
