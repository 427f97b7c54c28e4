/** The order of work on the page: which station has the focus, and what is said of it. */
import { api, type EntryDraft, type Station, type WorkOrder } from '../../lib/api';
import { AskedOfRig } from '../../lib/asked.svelte';
import { openRig } from '../../lib/openrig.svelte';
import { Recording } from '../../lib/recording.svelte';

export class OrderOfWork extends AskedOfRig<WorkOrder> {
  focus = $state<Station['node'] | null>(null);
  readonly saying = new Recording();

  constructor() {
    super(api.order);
  }

  /** The stations, or those of the short order alone. */
  readonly stations = $derived.by(() => this.data?.stations ?? []);
  readonly open = $derived.by(
    () => this.stations.find((one) => one.node === (this.focus ?? this.data?.next)) ?? null,
  );

  say(reading: EntryDraft['reading'], says: string): void {
    if (!openRig.rig) return;
    const subject = { kind: 'rig' as const, id: openRig.rig };
    void this.saying.record([{ subject, reading }], null, says);
  }

  /** Walk up or down the stations; left and right along what rests on what. */
  key = (event: KeyboardEvent): void => {
    const at = this.stations.findIndex((one) => one.node === this.open?.node);
    const here = this.stations[at];
    if (!here) return;
    const to: Record<string, Station['node'] | undefined> = {
      ArrowDown: this.stations[at + 1]?.node,
      ArrowUp: this.stations[at - 1]?.node,
      ArrowLeft: here.rests_on.at(-1)?.node,
      ArrowRight: this.stations.find((one) => one.rests_on.some((up) => up.node === here.node))
        ?.node,
    };
    if (!(event.key in to)) return;
    event.preventDefault();
    const next = to[event.key];
    if (next) {
      this.focus = next;
      document.getElementById(`station-${next}`)?.focus();
    }
  };
}
