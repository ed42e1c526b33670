import { parseMidi } from 'midi-file';
import type { MidiEvent } from 'midi-file';

export interface NotatedEvent {
  /** Seconds from the begin of the file, at the tempi that it gives. */
  readonly at: number;
  readonly event: MidiEvent;
}

const DEFAULT_TEMPO = 500_000;

/** All events of a MIDI file but for its ends of tracks and its tempi, in the order of their times. */
export function readMidi(file: Uint8Array): NotatedEvent[] {
  const { header, tracks } = parseMidi(file);
  const perBeat = header.ticksPerBeat;
  if (!perBeat) throw new Error('this MIDI file counts in film frames');
  const events = tracks.flatMap((track) => {
    let tick = 0;
    return track.map((event) => ({ tick: (tick += event.deltaTime), event }));
  });
  events.sort((a, b) => a.tick - b.tick);
  const out: NotatedEvent[] = [];
  let [at, last, tempo] = [0, 0, DEFAULT_TEMPO];
  for (const { tick, event } of events) {
    at += ((tick - last) * tempo) / 1e6 / perBeat;
    last = tick;
    if (event.type === 'setTempo') tempo = event.microsecondsPerBeat;
    else if (event.type !== 'endOfTrack') out.push({ at, event });
  }
  return out;
}
