/** Recording with the browser's own microphone: a level before and while it runs, WAV when it stops. */
import { wavOf, type Brought } from './wave';

type State = 'off' | 'asking' | 'ready' | 'recording';

const FLOOR_DB = -80;
/** So many seconds at the most; the bench takes no more. */
export const LONGEST_S = 170;

export const REFUSALS: Record<string, [string, string]> = {
  NotAllowedError: [
    'The browser may not use the microphone.',
    'Allow it beside the address, or bring a file your phone recorded.',
  ],
  NotFoundError: ['No microphone was found.', 'Plug one in, or bring a file.'],
  NotReadableError: [
    'The microphone is held by another program.',
    'Close that one, or bring a file.',
  ],
  gone: ['The microphone was unplugged.', 'What was recorded until then is kept below.'],
  none: ['This browser cannot record here.', 'Bring a file your phone recorded.'],
};

export class Microphone {
  state = $state<State>('off');
  trouble = $state<[string, string] | null>(null);
  /** Level of the last tenth of a second [dB under full scale], and of the room. */
  level = $state(FLOOR_DB);
  room = $state(FLOOR_DB);
  /** Loudest of the last two seconds. */
  peak = $state(FLOOR_DB);
  clips = $state(false);
  seconds = $state(0);
  /** Loud events of this recording, as they are heard. */
  heard = $state(0);
  #context: AudioContext | null = null;
  #stream: MediaStream | null = null;
  #blocks: Float32Array[] = [];
  #power = 0;
  #count = 0;
  #recent: number[] = [];
  #lastLoud = -10;
  #done: (file: Brought) => void;

  constructor(done: (file: Brought) => void) {
    this.#done = done;
  }

  /** Ask for the microphone and show its level; gain, echo and noise of the phone's own asked off. */
  async open(): Promise<void> {
    if (this.state !== 'off') return;
    this.trouble = null;
    if (!navigator.mediaDevices || typeof AudioWorkletNode === 'undefined') {
      this.trouble = REFUSALS.none ?? null;
      return;
    }
    this.state = 'asking';
    try {
      this.#stream = await navigator.mediaDevices.getUserMedia({
        audio: { autoGainControl: false, echoCancellation: false, noiseSuppression: false },
      });
      const context = new AudioContext();
      this.#context = context;
      await context.audioWorklet.addModule('/recorder-worklet.js');
      const node = new AudioWorkletNode(context, 'lyrandis-recorder', { numberOfOutputs: 0 });
      node.port.onmessage = (event: MessageEvent<Float32Array>) => this.#take(event.data);
      context.createMediaStreamSource(this.#stream).connect(node);
      this.#stream.getAudioTracks()[0]?.addEventListener('ended', () => this.#gone());
      this.state = 'ready';
    } catch (error) {
      const name = error instanceof DOMException ? error.name : 'none';
      this.close();
      this.trouble = REFUSALS[name] ?? REFUSALS.none ?? null;
    }
  }

  start(): void {
    if (this.state !== 'ready') return;
    this.#blocks = [];
    this.seconds = 0;
    this.heard = 0;
    this.clips = false;
    this.state = 'recording';
  }

  /** End the recording and hand it over. */
  stop(): void {
    if (this.state !== 'recording') return;
    this.state = 'ready';
    this.#handOver();
  }

  close(): void {
    this.#stream?.getTracks().forEach((track) => track.stop());
    void this.#context?.close();
    this.#stream = this.#context = null;
    this.state = 'off';
    this.level = this.room = this.peak = FLOOR_DB;
    this.#recent = [];
  }

  #gone(): void {
    const was = this.state;
    if (was === 'off') return;
    if (was === 'recording') this.#handOver();
    this.close();
    this.trouble = REFUSALS.gone ?? null;
  }

  #handOver(): void {
    const rate = this.#context?.sampleRate ?? 48000;
    const length = this.#blocks.reduce((sum, block) => sum + block.length, 0);
    const whole = new Float32Array(length);
    let at = 0;
    for (const block of this.#blocks) {
      whole.set(block, at);
      at += block.length;
    }
    this.#blocks = [];
    if (length) this.#done({ data: wavOf(whole, rate), name: 'recorded here.wav', lossy: false });
  }

  #take(block: Float32Array): void {
    const rate = this.#context?.sampleRate ?? 48000;
    if (this.state === 'recording') {
      this.#blocks.push(block);
      this.seconds += block.length / rate;
      if (this.seconds >= LONGEST_S) this.stop();
    }
    for (const value of block) {
      this.#power += value * value;
      if (Math.abs(value) >= 0.999) this.clips = true;
    }
    this.#count += block.length;
    if (this.#count < rate / 20) return;
    const level = Math.max(10 * Math.log10(this.#power / this.#count + 1e-12), FLOOR_DB);
    this.#power = this.#count = 0;
    this.level = level;
    this.#recent = [...this.#recent.slice(-99), level];
    const sorted = [...this.#recent].sort((a, b) => a - b);
    this.room = sorted[Math.floor(sorted.length * 0.3)] ?? level;
    this.peak = Math.max(...this.#recent.slice(-40));
    if (this.state !== 'recording') return;
    if (level > this.room + 12 && this.seconds - this.#lastLoud > 0.8) {
      this.heard += 1;
      this.#lastLoud = this.seconds;
    }
  }
}
