/** The bow's place: its pages, and the controls that are not on the first of them. */
export const bow = {
  key: 'bow',
  name: 'Bow',
  routes: {
    '/bow': () => import('./Bow.svelte'),
    '/bow/choose': () => import('./Choose.svelte'),
    '/bow/energy': () => import('./Energy.svelte'),
    '/bow/condition': () => import('./Condition.svelte'),
  },
  controls: {
    board: 'bow/choose',
    speed: 'bow/energy',
    inspection: 'bow/condition',
    limbs: 'bow/condition',
  },
} as const;
