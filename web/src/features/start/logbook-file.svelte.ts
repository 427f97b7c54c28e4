/** A saved logbook, looked at before it is brought in. */
import { api, type LogbookBrought, type Problem } from '../../lib/api';
import { Asked } from '../../lib/asked.svelte';
import { own } from '../../lib/problems';

type File_ = Parameters<typeof api.bringLogbook>[0];

export class LogbookFile extends Asked<LogbookBrought> {
  /** What the file is called, once it is read. */
  name = $state('');
  brought = new Asked<LogbookBrought>();
  /** The file is no logbook at all. */
  unread = $state.raw<Problem | null>(null);
  #file: File_ | null = null;

  async take(file: File | undefined): Promise<void> {
    if (!file) return;
    this.clear();
    this.brought.clear();
    this.name = file.name;
    this.unread = null;
    this.#file = null;
    try {
      const { entries, rig } = JSON.parse(await file.text()) as Partial<File_>;
      if (!Array.isArray(entries)) throw new Error('no entries');
      this.#file = { entries, rig: rig ?? null, only_look: false };
    } catch {
      this.unread = own(
        'not_a_logbook',
        'no logbook',
        `“${file.name}” is no saved logbook.`,
        'Choose a file that “Save as a file” on a logbook page has made.',
      );
      return;
    }
    const asked = { ...this.#file, only_look: true };
    await this.ask(() => api.bringLogbook(asked));
  }

  /** Bring it in; return what it brought. */
  async bring(): Promise<LogbookBrought | null> {
    const file = this.#file;
    return file && this.brought.ask(() => api.bringLogbook(file));
  }
}
