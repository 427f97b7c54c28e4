/** Which recordings are still kept on this machine, and their takes drawn. */
import { SvelteMap } from 'svelte/reactivity';
import { api, type KeptSound, type PageOf, type Trace } from '../../lib/api';
import { settled } from '../../lib/poll';

type Recording = PageOf<'listen'>['recordings'][number];

class KeptSounds {
  all = $state.raw<KeptSound[] | null>(null);
  /** One that is to be listened to on the page that opens next. */
  #pending: KeptSound | null = null;
  #traces = new SvelteMap<string, Trace[] | null>();
  #asked = new Set<string>();

  async load(): Promise<void> {
    const { data } = await api.sounds();
    if (data) this.all = data;
  }

  /** What was last recorded, or is to be listened to as; null while nobody chose. */
  as = $state<'pluck' | 'shot' | 'reference' | null>(null);

  /** Hand a kept recording to the page that opens next. */
  handOver(kept: KeptSound): void {
    this.#pending = kept;
  }

  /** Take what was handed over, once. */
  handed(): KeptSound | null {
    const kept = this.#pending;
    this.#pending = null;
    return kept;
  }

  /** True while nobody knows, too: a recording is missed only once the bench said so. */
  has(mark: string): boolean {
    return this.all === null || this.all.some((one) => one.mark === mark);
  }

  async forget(mark: string): Promise<boolean> {
    const { problem } = await api.forgetSound(mark);
    if (!problem) {
      this.all = (this.all ?? []).filter((one) => one.mark !== mark);
      this.#asked.clear();
      this.#traces.clear();
    }
    return !problem;
  }

  /** Takes of a recording drawn; null while they are on their way, or where it is forgotten. */
  tracesOf(recording: Recording): Trace[] | null {
    const at = recording.takes.map((take) => take.at_s);
    const key = `${recording.mark}:${at.join(',')}`;
    if (!this.#asked.has(key) && this.has(recording.mark)) {
      this.#asked.add(key);
      void settled(() => api.soundTraces(recording.mark, at)).then(({ data }) => {
        this.#traces.set(key, data ? [...data.traces] : null);
      });
    }
    return this.#traces.get(key) ?? null;
  }
}

export const keptSounds = new KeptSounds();
