/** Taking a reading off an instrument: shown as it settles, recorded once when it is still. */
import type { EntryDraft, InstrumentOut, PartKind, Problem } from '../../lib/api';
import { openRig } from '../../lib/openrig.svelte';
import { Recording } from '../../lib/recording.svelte';
import { fittedId } from '../../lib/values';

type Kind = InstrumentOut['kind'];
export type Fault = 'drift' | 'timeout' | 'unplugged' | 'low_battery' | 'nonsense';

interface Asked {
  /** Which arrow, of those that are counted. */
  arrow: number;
  /** How far the string is drawn, on the bow scale. */
  drawMm: number | null;
  fault: Fault | null;
}

interface TakenNow {
  value: number;
  plusMinus: number;
  arrow: number | null;
}

const COUNTED: readonly Kind[] = ['grain_scale', 'spine_gauge'];

/** What a reading is recorded as, and on which part. */
function draftOf(kind: Kind, value: number, asked: Asked): EntryDraft | null {
  const on = (part: PartKind | 'rig', reading: EntryDraft['reading']): EntryDraft | null => {
    const id = part === 'rig' ? openRig.rig : fittedId(openRig.assessment, part);
    return id ? { subject: { kind: part, id }, reading, source: 'simulated' } : null;
  };
  switch (kind) {
    case 'bow_scale':
      return asked.drawMm === null
        ? null
        : on('bow', {
            kind: 'bow_weighed',
            draw_weight_lbf: value,
            draw_length_mm: asked.drawMm,
            datum: 'trade',
            string_at: 'hook',
          });
    case 'grain_scale':
      return on('arrow_set', {
        kind: 'arrow_mass',
        arrow_mass_gr: value,
        arrow_number: asked.arrow,
      });
    case 'spine_gauge':
      return on('arrow_set', {
        kind: 'numbered_arrow',
        arrow_number: asked.arrow,
        spine_lbf: value,
      });
    case 'chronograph':
      return on('rig', { kind: 'arrow_speed', speed_mps: value });
    case 'bow_square':
      return on('rig', { kind: 'brace_height', brace_height_mm: value, datum: 'pivot' });
    case 'calliper':
      return on('string', { kind: 'string_build', bundle_mm: value });
  }
}

const PARTS: Record<Kind, PartKind | null> = {
  bow_scale: 'bow',
  grain_scale: 'arrow_set',
  spine_gauge: 'arrow_set',
  chronograph: null,
  bow_square: null,
  calliper: 'string',
};

export class Taking {
  /** What the display shows. */
  value = $state<number | null>(null);
  busy = $state(false);
  taken = $state.raw<TakenNow | null>(null);
  failed = $state<string | null>(null);
  readonly recording = new Recording();
  #stream: EventSource | null = null;

  get problem(): Problem | null {
    return this.recording.problem;
  }

  counts(kind: Kind): boolean {
    return COUNTED.includes(kind);
  }

  /** Take one reading; pressed again while one is on its way, nothing happens. */
  take(kind: Kind, asked: Asked, says: (value: number) => string, done: () => void): void {
    if (this.busy || !openRig.rig) return;
    this.stop();
    this.busy = true;
    this.failed = null;
    this.taken = null;
    this.recording.problem = null;
    const seed = 100 * (openRig.assessment?.entry_count ?? 0) + asked.arrow;
    const query = [
      `seed=${seed}`,
      ...(asked.drawMm === null ? [] : [`draw_length_mm=${asked.drawMm}`]),
      ...(asked.fault ? [`fault=${asked.fault}`] : []),
    ].join('&');
    const url = `/api/rigs/${encodeURIComponent(openRig.rig)}/instruments/${kind}?${query}`;
    const stream = new EventSource(url);
    this.#stream = stream;
    const data = (event: Event) => JSON.parse((event as MessageEvent<string>).data) as unknown;
    stream.addEventListener('sample', (event) => {
      this.value = (data(event) as { value: number }).value;
    });
    stream.addEventListener('taken', (event) => {
      this.stop();
      const { value, plus_minus } = data(event) as { value: number; plus_minus: number };
      this.value = value;
      void this.#record(kind, asked, { value, plusMinus: plus_minus }, says, done);
    });
    stream.addEventListener('failed', (event) => {
      this.#fail((data(event) as { instruction: string }).instruction);
    });
    // a line that breaks is not taken up again by itself: nothing is recorded of it
    stream.onerror = () =>
      this.#fail('The line to it was lost. Nothing is recorded; take it anew.');
  }

  stop(): void {
    this.#stream?.close();
    this.#stream = null;
  }

  #fail(instruction: string): void {
    this.stop();
    this.busy = false;
    this.failed = instruction;
    this.value = null;
  }

  async #record(
    kind: Kind,
    asked: Asked,
    found: { value: number; plusMinus: number },
    says: (value: number) => string,
    done: () => void,
  ): Promise<void> {
    const draft = draftOf(kind, found.value, asked);
    const kept = await this.recording.record([draft], PARTS[kind], says(found.value));
    this.busy = false;
    if (!kept) return;
    this.taken = { ...found, arrow: this.counts(kind) ? asked.arrow : null };
    done();
  }
}
