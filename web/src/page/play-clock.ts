/** Time of what is heard now: of the sound where there is one, else of the page. */
export interface PlayClock {
  /** Seconds since the first frame. */
  readonly seconds: number;
  readonly isPlaying: boolean;
  isMuted: boolean;
  /** Plays on from where it stands. */
  play(): Promise<void>;
  /** Stops where it is, or at a time. */
  pause(at?: number): void;
}

/** Until the first sample: a few quanta of the sound card, so that the start is not late. */
const START_DELAY = 0.04;

/** @param file - the sound; null for silence. */
export function createPlayClock(file: Uint8Array<ArrayBuffer> | null): PlayClock {
  let context: AudioContext | null = null;
  let buffer: Promise<AudioBuffer> | null = null;
  let gain: GainNode | null = null;
  let source: AudioBufferSourceNode | null = null;
  let isMuted = false;
  /** What ran on when it was begun, less where it was begun. */
  let zero: number | null = null;
  let rest = 0;
  const now = (): number => (context ? context.currentTime - (context.outputLatency || 0) : performance.now() / 1000);
  const seconds = (): number => (zero === null ? rest : Math.max(rest, now() - zero));
  return {
    get seconds() {
      return seconds();
    },
    get isPlaying() {
      return zero !== null;
    },
    get isMuted() {
      return isMuted;
    },
    set isMuted(value) {
      isMuted = value;
      if (gain) gain.gain.value = value ? 0 : 1;
    },
    async play() {
      const from = rest;
      if (file) {
        // Browsers let a page sound once somebody has asked for it.
        context ??= new AudioContext({ sampleRate: 48000 });
        buffer ??= context.decodeAudioData(file.slice().buffer);
        await context.resume();
        const sound = await buffer;
        gain ??= context.createGain();
        gain.gain.value = isMuted ? 0 : 1;
        source = context.createBufferSource();
        source.buffer = sound;
        source.connect(gain).connect(context.destination);
        const start = context.currentTime + START_DELAY;
        source.start(start, Math.min(from, sound.duration));
        zero = start - from;
      } else zero = now() - from;
    },
    pause(at = seconds()) {
      rest = at;
      zero = null;
      source?.stop();
      source = null;
    },
  };
}
