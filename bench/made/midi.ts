import { writeMidi } from 'midi-file';
import type { MidiEvent } from 'midi-file';

export interface TimedEvent {
  /** Milliseconds. */
  readonly at: number;
  readonly event: MidiEvent;
}

/** Events as a MIDI file, a tick a millisecond, in the order of their times. */
export function midiFile(events: readonly TimedEvent[]): Buffer {
  const track: MidiEvent[] = [{ deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 }];
  let now = 0;
  for (const { at, event } of [...events].sort((a, b) => a.at - b.at)) {
    track.push({ ...event, deltaTime: at - now });
    now = at;
  }
  track.push({ deltaTime: 0, meta: true, type: 'endOfTrack' });
  return Buffer.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 500 }, tracks: [track] }));
}
