/** A new rig from a bow that is on the bench: the bow, and who shoots it. */
import { api, type Assessment, type PartOut, type RigDraft } from '../../lib/api';
import { Asked } from '../../lib/asked.svelte';
import { keep, kept } from '../../lib/kept';
import { sameName } from '../../lib/names';

const NAME = 'from-bow';

export class FromBow extends Asked<PartOut[]> {
  answers = $state({ bow: '', archer: '', request: '', ...kept<object>(NAME) });
  made = new Asked<Assessment>();
  #wanted: string | null;

  constructor(bow: string | null) {
    super();
    this.#wanted = bow;
    this.answers.request ||= crypto.randomUUID();
    $effect(() => keep(NAME, $state.snapshot(this.answers)));
    void this.load();
  }

  load = async (): Promise<void> => {
    if (!(await this.ask(api.parts))) return;
    const known = (id: string | null) => this.bows.find((bow) => bow.id === id)?.id;
    this.answers.bow = known(this.#wanted) ?? known(this.answers.bow) ?? this.bows[0]?.id ?? '';
  };

  get bows(): PartOut[] {
    return this.data?.filter((part) => part.kind === 'bow') ?? [];
  }

  get archers(): PartOut[] {
    return this.data?.filter((part) => part.kind === 'archer') ?? [];
  }

  get bow(): PartOut | null {
    return this.bows.find((bow) => bow.id === this.answers.bow) ?? null;
  }

  get #known(): PartOut | null {
    return this.archers.find((one) => sameName(one.name, this.answers.archer)) ?? null;
  }

  /** Whether the archer is here already. */
  get says(): string {
    if (!this.answers.archer.trim()) return 'One who is here, or a new one.';
    return this.#known
      ? 'Here already: the draw and habits come along.'
      : 'New: the draw is asked for next.';
  }

  /** Make the rig; return its id, or null: refused, or a name is questioned. */
  async make(alike: boolean): Promise<string | null> {
    const bow = this.bow;
    if (!bow) return null;
    const archer = this.answers.archer.trim();
    const draft = {
      name: `${archer}: ${bow.name}`.slice(0, 60),
      alike,
      archer: this.#known?.id ?? { name: archer, readings: [] },
      bow: bow.id,
      string: bow.on.findLast((on) => on.string)?.string ?? null,
      request: this.answers.request,
    } as RigDraft;
    const made = await this.made.ask(() => api.createRig(draft));
    if (!made?.rig) return null;
    this.answers = { bow: '', archer: '', request: '' };
    keep(NAME, null);
    return made.rig;
  }
}
