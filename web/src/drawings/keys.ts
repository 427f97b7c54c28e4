/** Keys of a drawn slider, as every slider answers them. */

interface Slid {
  now: number;
  step: number;
  /** A big step: page keys, and arrows with shift. */
  page: number;
  low: number;
  high: number;
  /** Where the End key goes; the high end otherwise. */
  end?: number;
  /** True when more lies downward on the drawing. */
  downward?: boolean;
}

/** Return where a key moves a slider, within its ends; null for a key that is not the slider's. */
export function slid(event: KeyboardEvent, at: Slid): number | null {
  const step = event.shiftKey ? at.page : at.step;
  const up = at.downward ? -1 : 1;
  const to: Record<string, number> = {
    ArrowRight: at.now + step,
    ArrowLeft: at.now - step,
    ArrowUp: at.now + up * step,
    ArrowDown: at.now - up * step,
    PageUp: at.now + up * at.page,
    PageDown: at.now - up * at.page,
    Home: at.low,
    End: at.end ?? at.high,
  };
  const wanted = to[event.key];
  if (wanted === undefined) return null;
  event.preventDefault();
  return Math.min(Math.max(wanted, at.low), at.high);
}
