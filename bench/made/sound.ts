import { bass, createMix, createRandom, hat, kick, midi, pad, play, pluck, snare } from '../../demo/synth';
import type { Mix } from '../../demo/synth';
import { hashOf } from './arrange';
import { midiFile } from './midi';
import type { TimedEvent } from './midi';
import { DRUMS } from './notes';
import type { MadeSong, Note, Part } from './notes';

/** The song as a MIDI file, a tick a millisecond. */
export function toMidi(song: MadeSong): Buffer {
  const channels: Readonly<Record<Part, number>> = { bass: 0, chords: 1, melody: 2, drums: 9 };
  const timed: TimedEvent[] = (['bass', 'chords', 'melody'] as const).map((part) => ({
    at: 0,
    event: { deltaTime: 0, type: 'programChange', channel: channels[part], programNumber: song.programs[part] },
  }));
  for (const { at, length, pitch, velocity, part } of song.notes) {
    const note = { deltaTime: 0, channel: channels[part], noteNumber: pitch } as const;
    timed.push({ at: Math.round(1000 * at), event: { ...note, type: 'noteOn', velocity } });
    timed.push({ at: Math.round(1000 * (at + length)), event: { ...note, type: 'noteOff', velocity: 0 } });
  }
  return midiFile(timed);
}

function drum(mix: Mix, { at, pitch, velocity }: Note, random: () => number): void {
  const gain = (velocity / 127) ** 1.5;
  if (pitch === DRUMS.kick) play(mix, at, 0.4, 0.9 * gain, 0, kick());
  else if (pitch === DRUMS.tom)
    play(
      mix,
      at,
      0.4,
      0.6 * gain,
      0.1,
      (t) => Math.sin(2 * Math.PI * (110 * t + 1.6 * (1 - Math.exp(-t * 30)))) * Math.exp(-t * 9),
    );
  else if (pitch === DRUMS.snare || pitch === DRUMS.clap) play(mix, at, 0.3, 0.5 * gain, 0, snare(random));
  else if (pitch === DRUMS.rim)
    play(mix, at, 0.08, 0.5 * gain, 0, (t) => Math.sin(2 * Math.PI * 1700 * t) * Math.exp(-t * 90));
  else
    play(
      mix,
      at,
      pitch === DRUMS.crash ? 1.4 : 0.35,
      0.3 * gain,
      0.3,
      hat(random, pitch === DRUMS.crash ? 3 : pitch === DRUMS.openHat ? 14 : pitch === DRUMS.ride ? 9 : 55),
    );
}

/** The song played by the demo's own synthesiser. */
export function toMix(song: MadeSong): Mix {
  const random = createRandom(hashOf(song.name) + 1);
  const mix = createMix(song.length);
  const isPlucked = random() < 0.6;
  for (const note of song.notes) {
    const { at, length, pitch, velocity, part } = note;
    const gain = (velocity / 127) ** 1.5;
    if (part === 'drums') drum(mix, note, random);
    else if (part === 'bass') play(mix, at, length, 0.5 * gain, 0, bass(midi(pitch)));
    else if (part === 'chords')
      play(
        mix,
        at,
        length,
        (isPlucked ? 0.25 : 0.16) * gain,
        -0.3,
        isPlucked ? pluck(midi(pitch), random) : pad(midi(pitch), length, Math.min(0.03, length / 3)),
      );
    else play(mix, at, length, 0.3 * gain, 0.3, pluck(midi(pitch), random, 0.998));
  }
  if (song.noise)
    for (const channel of [mix.left, mix.right])
      for (let i = 0; i < channel.length; i++) channel[i]! += (random() * 2 - 1) * song.noise;
  return mix;
}
