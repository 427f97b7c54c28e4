/** The kinds of bow as they hang unstrung: asked for once. */
import { api, type Silhouette } from '../lib/api';
import { Asked } from '../lib/asked.svelte';

class BowKinds extends Asked<Silhouette[]> {
  load = (): void => {
    if (!this.data && !this.busy) void this.ask(api.bowKinds);
  };

  of(family: string): Silhouette | null {
    return this.data?.find((kind) => kind.family === family) ?? null;
  }
}

export const bowKinds = new BowKinds();
