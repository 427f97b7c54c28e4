/** Filling in the look-over: marks stay as made until they are recorded. */
import type { components } from '../../lib/api.gen';
import type { Assessment } from '../../lib/api';
import { nothingFitted } from '../../lib/problems';
import { Typing } from '../../lib/typing.svelte';
import { draftOn } from '../../lib/values';

type Item = components['schemas']['InspectedItem']['item'];
type Found = 'good' | 'failing';

export class LookOver extends Typing {
  constructor(items: readonly { item: Item }[]) {
    super('look-over', Object.fromEntries(items.map(({ item }) => [item, ''])));
  }

  get count(): number {
    return Object.values(this.fields).filter(Boolean).length;
  }

  mark(item: Item, found: Found): void {
    this.set({ [item]: this.fields[item] === found ? '' : found });
  }

  all(items: readonly { item: Item }[]): void {
    const rest = items.filter(({ item }) => !this.fields[item]);
    this.set(Object.fromEntries(rest.map(({ item }) => [item, 'good'])));
  }

  record(assessment: Assessment): void {
    const found = (wanted: Found) =>
      (Object.keys(this.fields) as Item[]).filter((item) => this.fields[item] === wanted);
    const [good, failing] = [found('good'), found('failing')];
    const draft = draftOn(assessment, 'bow', { kind: 'inspected', good, failing });
    if (!draft) {
      this.problem = nothingFitted('bow');
      return;
    }
    const says = failing.length ? `Looked over, ${failing.length} not right` : 'Looked over';
    void this.send({ do: 'record', drafts: [draft] }, says, null);
  }
}
