/** The trade's words for how shafts stand to a rig. */
import type { SpineBoard } from '../../lib/api';

type Word = SpineBoard['ways'][number]['word'];

export const STIFFNESS: Record<Word, string> = {
  very_weak: 'far too weak',
  weak: 'too weak',
  little_weak: 'a little weak',
  matched: 'matched',
  little_stiff: 'a little stiff',
  stiff: 'too stiff',
  far: 'far too stiff',
};
