/** Shots as the text that carries them home: each line with its own check, and how many there are. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** What a line says: when, under which id, with which holding, and the shot as it can be jotted. */
export interface ShotText {
  at: string;
  id: string;
  of: string;
  line: string;
}

const CHECK_LETTERS = 4;

/** A page from a file has no `crypto.subtle`, so the sum comes along. */
export function checkOf({ at, id, of, line }: ShotText): string {
  const sum = sha256(utf8ToBytes([at, id, of, line].join('|')));
  return bytesToHex(sum).slice(0, CHECK_LETTERS);
}

export function shotsAsText(shots: readonly ShotText[]): string {
  const lines = ['Lyrandis field shots 2'];
  let of = '';
  for (const shot of shots) {
    if (shot.of !== of) lines.push((of = shot.of));
    lines.push(`${shot.at} ${shot.id} ${shot.line} ~${checkOf(shot)}`);
  }
  return `${[...lines, `end ${shots.length}`].join('\n')}\n`;
}
