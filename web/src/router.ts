import { createRouter } from 'sv-router';
import Home from './features/start/Home.svelte';
import RigFrame from './features/rig/RigFrame.svelte';

export const { navigate, route } = createRouter({
  '/': Home,
  '/new': () => import('./features/start/FirstRun.svelte'),
  '/rules': () => import('./features/rules/Rules.svelte'),
  '/api-reference': () => import('./features/reference/Reference.svelte'),
  '/rigs/:rig': {
    '/': () => import('./features/archer/Archer.svelte'),
    '/archer': () => import('./features/archer/Archer.svelte'),
    '/bow': () => import('./features/bow/Bow.svelte'),
    '/bow/choose': () => import('./features/bow/Choose.svelte'),
    '/bow/energy': () => import('./features/bow/Energy.svelte'),
    '/bow/condition': () => import('./features/bow/Condition.svelte'),
    '/arrow': () => import('./features/arrow/Arrow.svelte'),
    '/arrow/build': () => import('./features/arrow/Build.svelte'),
    '/arrow/try': () => import('./features/arrow/Try.svelte'),
    '/arrow/taper': () => import('./features/arrow/Taper.svelte'),
    '/arrow/quiver': () => import('./features/arrow/Quiver.svelte'),
    '/logbook': () => import('./features/logbook/Logbook.svelte'),
    layout: RigFrame,
  },
  '*': () => import('./features/start/Lost.svelte'),
});
