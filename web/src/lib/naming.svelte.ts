/** Giving something another name: typed, sent once, questioned where another is called the same. */
import { api, type EntryDraft } from './api';
import { Asked } from './asked.svelte';

export class Naming extends Asked<unknown> {
  text = $state('');
  /** Stays the same until it is recorded: sent again, it is recorded once. */
  #id = '';
  #sent = '';

  /** Record the name; true when it is. */
  async give(subject: EntryDraft['subject'], alike = false): Promise<boolean> {
    const name = this.text.trim();
    if (!name) return false;
    const content = `${name} ${alike}`;
    if (content !== this.#sent) this.#id = crypto.randomUUID();
    this.#sent = content;
    return (await this.ask(() => api.rename(subject, name, alike, this.#id))) !== null;
  }
}
