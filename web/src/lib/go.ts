import { navigate } from '../router';
import type { Action } from './api';
import { bench } from './bench.svelte';

/** Go to the control an action names and put the cursor in it. */
export async function goTo(action: Action): Promise<void> {
  if (!bench.rig) return;
  await navigate(`/rigs/:rig/${action.stage}`, { params: { rig: bench.rig } });
  bench.wanted = action;
}
