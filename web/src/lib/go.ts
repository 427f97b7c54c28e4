import { STAGES, type StagePath } from '../stages';
import type { Action } from './api';
import { openRig } from './openrig.svelte';
import { goToPath } from './navigation';
import { firstPage, pagePath } from './paths';

/** A control on a stage's page. */
export type Place = Pick<Action, 'stage' | 'control'>;

/** The path of the page an action's control is on, under the rig. */
export function pathOf(action: Place): StagePath {
  const controls: Record<string, StagePath> | undefined = STAGES.find(
    (stage) => stage.key === action.stage,
  )?.controls;
  return controls?.[action.control] ?? (firstPage(action.stage) as StagePath);
}

/** Go to the control an action names and put the cursor in it. */
export async function goTo(action: Place): Promise<void> {
  if (!openRig.rig) return;
  const path = pathOf(action);
  await goToPath(pagePath(openRig.rig, path));
  openRig.wanted = action;
}
