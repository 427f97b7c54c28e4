/** A note being written. */
import { openRig } from '../../lib/openrig.svelte';
import { Typing } from '../../lib/typing.svelte';

export class Note extends Typing {
  constructor() {
    super('note', { text: '' });
  }

  record(): void {
    const text = this.fields.text?.trim();
    if (!text || !openRig.rig) return;
    const subject = { kind: 'rig' as const, id: openRig.rig };
    const act = {
      do: 'record' as const,
      drafts: [{ subject, reading: { kind: 'noted' as const, text } }],
    };
    void this.send(act, 'a note', null);
  }
}
