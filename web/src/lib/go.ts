import { navigate } from '../router';
import type { Action } from './api';
import { bench } from './bench.svelte';

/** Controls that stand on a page of their own within a stage; the others are on its first page. */
const PAGES = {
  archer: {},
  bow: {
    board: 'bow/choose',
    speed: 'bow/energy',
    inspection: 'bow/condition',
    limbs: 'bow/condition',
  },
  arrow: {
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

type Place = (typeof PAGES)['bow']['board'] | (typeof PAGES)['arrow']['arrow'] | Action['stage'];

/** Go to the control an action names and put the cursor in it. */
export async function goTo(action: Action): Promise<void> {
  if (!bench.rig) return;
  const pages = PAGES[action.stage] as Record<string, Place>;
  const place = pages[action.control] ?? action.stage;
  await navigate(`/rigs/:rig/${place}`, { params: { rig: bench.rig } });
  bench.wanted = action;
}
