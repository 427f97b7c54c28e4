/** Striking out takes that are recorded, putting them back, and moving their onsets. */
import { openRig } from '../../lib/openrig.svelte';
import { api, type EntryDraft, type PageOf, type Problem } from '../../lib/api';
import { settled } from '../../lib/poll';
import { Recording } from '../../lib/recording.svelte';

type Recorded = PageOf<'listen'>['recordings'][number];

export class Striking {
  problem = $state.raw<Problem | null>(null);
  busy = $state(false);
  #recording = new Recording();

  /** Strike a take out, or put it back; what is pooled over the takes is heard anew. */
  strike(recorded: Recorded, number: number): Promise<void> {
    const now = recorded.takes.filter((take) => take.struck).map((take) => take.number);
    const struck = now.includes(number) ? now.filter((one) => one !== number) : [...now, number];
    return this.#anew(
      recorded,
      struck,
      movedOf(recorded),
      `Take ${number} ${now.includes(number) ? 'put back' : 'struck out'}`,
    );
  }

  move(recorded: Recorded, number: number, ms: number): Promise<void> {
    const take = recorded.takes[number - 1];
    if (!take) return Promise.resolve();
    const at_s = Math.max(take.at_s + ms / 1000, 0);
    const moved = [
      ...movedOf(recorded).filter((one) => one.take !== number),
      { take: number, at_s },
    ];
    const struck = recorded.takes.filter((one) => one.struck).map((one) => one.number);
    return this.#anew(recorded, struck, moved, `Onset of take ${number} moved`);
  }

  async #anew(
    recorded: Recorded,
    struck: number[],
    moved: { take: number; at_s: number }[],
    says: string,
  ): Promise<void> {
    const { rig } = openRig;
    if (!rig || this.busy) return;
    this.busy = true;
    this.problem = null;
    const { what, same_place } = recorded;
    const body = { what, struck, moved, added: [...recorded.added], same_place };
    const { data, problem } = await settled(() => api.hearSound(rig, recorded.mark, body));
    const reading = data?.hearing?.draft;
    this.problem = problem ?? null;
    if (reading) {
      const entry: EntryDraft = {
        subject: { kind: 'rig', id: rig },
        reading,
        source: recorded.source,
        happened_at: recorded.at,
      };
      await this.#recording.record([entry], null, says);
      this.problem = this.#recording.problem;
    }
    this.busy = false;
  }
}

function movedOf(recorded: Recorded): { take: number; at_s: number }[] {
  return recorded.takes
    .filter((take) => take.moved)
    .map((take) => ({ take: take.number, at_s: take.at_s }));
}
