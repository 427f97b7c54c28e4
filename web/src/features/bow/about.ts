/** Saying what is known of the bow. */
import type { Stage } from '../../lib/api';
import { figure, tell } from '../../lib/preferences.svelte';
import { valueOf } from '../../lib/values';

export function shown(stage: Stage, key: string): string | null {
  const value = valueOf(stage, key);
  if (!value?.figure) return value?.text ?? null;
  return figure(value.figure) + (value.detail ? ` ${tell(value.detail)}` : '');
}

export function aboutBow(stage: Stage): string {
  const family = valueOf(stage, 'family')?.text ?? 'bow of a family not told';
  const mark = shown(stage, 'mark');
  const words = `${family[0]?.toUpperCase()}${family.slice(1)}`;
  return mark ? `${words}, marked ${mark}.` : `${words}, no mark told.`;
}
