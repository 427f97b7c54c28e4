/** The bench's clock beside the record, looked at before anything is recorded. */
import { api, type ClockCheck } from './api';

const AGAIN_MS = 60_000;

class Clock {
  check = $state.raw<ClockCheck | null>(null);
  #looked = 0;

  /** Look now; while the last look is fresh, it stands. */
  async look(): Promise<void> {
    const { check } = this;
    // what is wrong is looked at anew each time: it may be mended
    const amiss = check !== null && (check.behind || check.long_ago || check.future_count > 0);
    if (!amiss && Date.now() - this.#looked < AGAIN_MS && this.#looked <= Date.now()) return;
    this.#looked = Date.now();
    const { data } = await api.clock();
    if (data) this.check = data;
  }
}

export const clock = new Clock();
