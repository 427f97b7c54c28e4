import { navigate } from '../router';
import type { Action } from './api';
import { bench } from './bench.svelte';

/** Controls that stand on a page of their own within the bow's stage. */
const BOW_PAGES = { board: 'choose', speed: 'energy', inspection: 'condition', limbs: 'condition' };

/** Go to the control an action names and put the cursor in it. */
export async function goTo(action: Action): Promise<void> {
  if (!bench.rig) return;
  const page = BOW_PAGES[action.control as keyof typeof BOW_PAGES] as 'choose' | undefined;
  const path = action.stage === 'bow' && page ? (`bow/${page}` as const) : action.stage;
  await navigate(`/rigs/:rig/${path}`, { params: { rig: bench.rig } });
  bench.wanted = action;
}
