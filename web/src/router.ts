import { createRouter } from 'sv-router';
import Home from './features/start/Home.svelte';
import Lost from './features/start/Lost.svelte';
import RigFrame from './features/rig/RigFrame.svelte';
import { lazily } from './lib/lazily';
import { navigateBy } from './lib/navigation';
import { ROUTES } from './stages';

const now = lazily(() => import('./features/now/Now.svelte'));

const { navigate, route } = createRouter({
  '/': Home,
  '/rigs': Home,
  '/new': lazily(() => import('./features/start/FirstRun.svelte')),
  '/new/from-bow': lazily(() => import('./features/start/FromBow.svelte')),
  '/parts': lazily(() => import('./features/parts/Parts.svelte')),
  '/rules': lazily(() => import('./features/rules/Rules.svelte')),
  '/words': lazily(() => import('./features/words/Words.svelte')),
  '/api-reference': lazily(() => import('./features/reference/Reference.svelte')),
  '/rigs/:rig': {
    '/': now,
    '/now': now,
    ...ROUTES,
    '/instruments': lazily(() => import('./features/instruments/Instruments.svelte')),
    '/logbook': lazily(() => import('./features/logbook/Logbook.svelte')),
    layout: RigFrame,
  },
  '*': Lost,
});

navigateBy({
  // every path is built in lib/paths.ts, where the stages' own paths are typed
  to: (path, replace = false) =>
    (navigate as unknown as (to: string, how: object) => Promise<unknown>)(path, { replace }),
  get pathname() {
    return route.pathname;
  },
});
