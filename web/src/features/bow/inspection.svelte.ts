/** Filling in the look-over: marks stay as made until they are recorded. */
import type { components } from '../../lib/api.gen';
import type { Assessment, Problem } from '../../lib/api';
import { bench } from '../../lib/bench.svelte';
import { draftOn } from '../../lib/values';

type Item = components['schemas']['InspectedItem']['item'];

export class LookOver {
  marks = $state<Partial<Record<Item, 'good' | 'failing'>>>({});
  problem = $state.raw<Problem | null>(null);

  get count(): number {
    return Object.keys(this.marks).length;
  }

  mark(item: Item, found: 'good' | 'failing'): void {
    if (this.marks[item] === found) delete this.marks[item];
    else this.marks[item] = found;
  }

  all(items: readonly { item: Item }[]): void {
    for (const { item } of items) this.marks[item] ??= 'good';
  }

  async record(assessment: Assessment): Promise<void> {
    const found = (wanted: 'good' | 'failing') =>
      (Object.keys(this.marks) as Item[]).filter((item) => this.marks[item] === wanted);
    const [good, failing] = [found('good'), found('failing')];
    const draft = draftOn(assessment, 'bow', { kind: 'inspected', good, failing });
    if (!draft) return;
    const says = failing.length ? `Looked over, ${failing.length} not right` : 'Looked over';
    this.problem = await bench.record([draft], says);
    if (!this.problem) this.marks = {};
  }
}
