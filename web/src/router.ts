import { createRouter } from 'sv-router';
import Home from './features/start/Home.svelte';
import RigFrame from './features/rig/RigFrame.svelte';
import { ROUTES, STAGES } from './stages';

export const { navigate, route } = createRouter({
  '/': Home,
  '/new': () => import('./features/start/FirstRun.svelte'),
  '/rules': () => import('./features/rules/Rules.svelte'),
  '/api-reference': () => import('./features/reference/Reference.svelte'),
  '/rigs/:rig': {
    '/': STAGES[0].routes['/archer'],
    ...ROUTES,
    '/logbook': () => import('./features/logbook/Logbook.svelte'),
    layout: RigFrame,
  },
  '*': () => import('./features/start/Lost.svelte'),
});
