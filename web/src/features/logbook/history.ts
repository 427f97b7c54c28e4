/** A rig's entries: all at first, then only what is new. */
import { api, type Answer, type History } from '../../lib/api';

export async function historyOf(rig: string, before: History | null): Promise<Answer<History>> {
  const known = before?.rig === rig ? before : null;
  const answer = await api.history(rig, known?.revision ?? 0);
  if (!answer.data || !known) return answer;
  // a part that came onto the rig brings its own past
  if (answer.data.entries.some((entry) => entry.reading.kind === 'part_fitted')) {
    return api.history(rig, 0);
  }
  return {
    data: {
      ...answer.data,
      entries: [...known.entries, ...answer.data.entries],
      says: { ...known.says, ...answer.data.says },
    },
  };
}
