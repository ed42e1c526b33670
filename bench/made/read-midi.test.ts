import { writeMidi } from 'midi-file';
import type { MidiEvent } from 'midi-file';
import { midiFile } from './midi';
import { readMidi } from './read-midi';

const note = (deltaTime: number, noteNumber: number): MidiEvent => ({
  deltaTime,
  type: 'noteOn',
  channel: 0,
  noteNumber,
  velocity: 90,
});
const tempo = (deltaTime: number, microsecondsPerBeat: number): MidiEvent => ({
  deltaTime,
  meta: true,
  type: 'setTempo',
  microsecondsPerBeat,
});
const end: MidiEvent = { deltaTime: 0, meta: true, type: 'endOfTrack' };
const timesOf = (file: Uint8Array) => readMidi(file).map(({ at }) => at);

describe('reading a MIDI file', () => {
  it('follows changes of tempo in one track for the notes of another', () => {
    const file = writeMidi({
      header: { format: 1, numTracks: 2, ticksPerBeat: 100 },
      tracks: [
        [tempo(0, 600_000), tempo(200, 300_000), end],
        [note(100, 60), note(200, 62), end],
      ],
    });
    // Two beats at 100 a minute, then beats at 200: the second note comes one beat after the change.
    expect(timesOf(Uint8Array.from(file))).toEqual([0.6, 1.5]);
  });

  it('takes 120 a minute where no tempo is given', () => {
    const file = writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 96 }, tracks: [[note(96, 60), end]] });
    expect(timesOf(Uint8Array.from(file))).toEqual([0.5]);
  });

  it('finds the times at which events were written', () => {
    const times = [0, 125, 333, 2500];
    const file = midiFile(times.map((at) => ({ at, event: note(0, 60) })));
    expect(timesOf(file).map((at) => Math.round(1000 * at))).toEqual(times);
  });
});
