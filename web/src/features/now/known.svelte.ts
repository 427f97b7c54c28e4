/** What is known of the open rig, asked again when something is recorded. */
import { api, type Known } from '../../lib/api';
import { AskedOfRig } from '../../lib/asked.svelte';

export class KnownOfRig extends AskedOfRig<Known> {
  constructor() {
    super((rig) => api.known(rig));
  }
}
