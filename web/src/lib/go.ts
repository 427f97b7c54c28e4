import { navigate } from '../router';
import { STAGES, type StagePath } from '../stages';
import type { Action } from './api';
import { bench } from './bench.svelte';

/** Go to the control an action names and put the cursor in it. */
export async function goTo(action: Action): Promise<void> {
  if (!bench.rig) return;
  const controls: Record<string, StagePath> | undefined = STAGES.find(
    (stage) => stage.key === action.stage,
  )?.controls;
  const path = controls?.[action.control] ?? action.stage;
  await navigate(`/rigs/:rig/${path}`, { params: { rig: bench.rig } });
  bench.wanted = action;
}
