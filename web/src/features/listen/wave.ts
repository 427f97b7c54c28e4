/** Sound files in the page: what is sent as it is, what the browser decodes first, and WAV made here. */

/** Files the bench reads as they are; stated before anything is sent. */
export const MOST_BYTES = 50_000_000;
export const MOST_SECONDS = 180;
export const ACCEPTED = '.wav,.flac,.aiff,.aif,.m4a,.ogg,.oga,.opus,.mp3,.aac,.webm,.amr,audio/*';

export interface Brought {
  data: Blob;
  name: string;
  /** Turned into WAV from a compressed file. */
  lossy: boolean;
}

export class SoundTrouble extends Error {
  constructor(
    readonly reason: string,
    readonly instruction: string,
  ) {
    super(reason);
  }
}

const text = (bytes: Uint8Array, from: number, to: number) =>
  String.fromCharCode(...bytes.slice(from, to));

/** True for WAV, FLAC and AIFF by their first bytes, whatever the file is called. */
export function isPlain(head: Uint8Array): boolean {
  const first = text(head, 0, 4);
  const form = text(head, 8, 12);
  return (
    first === 'fLaC' ||
    ((first === 'RIFF' || first === 'RF64') && form === 'WAVE') ||
    (first === 'FORM' && (form === 'AIFF' || form === 'AIFC'))
  );
}

/** Samples of one channel, full scale 1, as a WAV file of 16 bits. */
export function wavOf(channel: Float32Array, rate: number): Blob {
  const data = new DataView(new ArrayBuffer(44 + 2 * channel.length));
  const write = (at: number, word: string) =>
    [...word].forEach((letter, n) => data.setUint8(at + n, letter.charCodeAt(0)));
  write(0, 'RIFF');
  data.setUint32(4, 36 + 2 * channel.length, true);
  write(8, 'WAVEfmt ');
  data.setUint32(16, 16, true);
  data.setUint16(20, 1, true);
  data.setUint16(22, 1, true);
  data.setUint32(24, rate, true);
  data.setUint32(28, 2 * rate, true);
  data.setUint16(32, 2, true);
  data.setUint16(34, 16, true);
  write(36, 'data');
  data.setUint32(40, 2 * channel.length, true);
  channel.forEach((value, n) =>
    data.setInt16(44 + 2 * n, Math.max(-1, Math.min(1, value)) * 32767, true),
  );
  return new Blob([data.buffer], { type: 'audio/wav' });
}

/** The channel that stands out most; never their mean, for the channels of a phone may cancel. */
function loudest(buffer: AudioBuffer): Float32Array {
  let best = buffer.getChannelData(0);
  let power = -1;
  for (let number = 0; number < buffer.numberOfChannels; number++) {
    const channel = buffer.getChannelData(number);
    let sum = 0;
    for (let n = 0; n < channel.length; n += 7) sum += (channel[n] ?? 0) ** 2;
    if (sum > power) [best, power] = [channel, sum];
  }
  return best;
}

/** Read a file a person chose; what is compressed is decoded by the browser. Throws `SoundTrouble`. */
export async function bring(file: File): Promise<Brought> {
  if (file.size > MOST_BYTES)
    throw new SoundTrouble(
      `${file.name} has ${(file.size / 1e6).toFixed(0)} MB, and ${MOST_BYTES / 1e6} are taken.`,
      'Record in mono, or cut it to the takes.',
    );
  let bytes: ArrayBuffer;
  try {
    bytes = await file.arrayBuffer();
  } catch {
    throw new SoundTrouble(
      `${file.name} could not be read to its end.`,
      'It was changed or taken away meanwhile. Choose it again.',
    );
  }
  if (isPlain(new Uint8Array(bytes.slice(0, 12))))
    return { data: new Blob([bytes]), name: file.name, lossy: false };
  const context = new OfflineAudioContext(1, 1, 48000);
  try {
    const decoded = await context.decodeAudioData(bytes);
    if (decoded.duration > MOST_SECONDS)
      throw new SoundTrouble(
        `${file.name} lasts ${(decoded.duration / 60).toFixed(1)} minutes.`,
        `Cut it to ${MOST_SECONDS / 60} minutes at the most.`,
      );
    return { data: wavOf(loudest(decoded), decoded.sampleRate), name: file.name, lossy: true };
  } catch (error) {
    if (error instanceof SoundTrouble) throw error;
    throw new SoundTrouble(
      `${file.name} is no sound this browser can read.`,
      'Bring a WAV or FLAC file, or what your phone recorded.',
    );
  }
}
