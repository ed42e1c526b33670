import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import { AUDIO_DEMUXERS, demuxerFor, mimeTypeOf } from '../features/media/demuxers';
import { decodeMono, openAs } from '../platform/ffmpeg';
import { MAX_SONG_SECONDS } from '../platform/limits';
import { readHead } from '../platform/read-head';

/** Prints the tempo, beats, downbeats and hits of a song. */
export async function beats(song: string, asJson: boolean): Promise<void> {
  const demuxer = demuxerFor(AUDIO_DEMUXERS, await mimeTypeOf(await readHead(song)));
  if (!demuxer) throw new Error(`${song} has no sound that can be read`);
  const samples = await decodeMono(openAs(demuxer, song), ANALYSIS_RATE, {
    maxSeconds: MAX_SONG_SECONDS,
    limitMs: 600_000,
  });
  const analysis = analyseSong(samples);
  const round = (t: number) => Math.round(t * 1e5) / 1e5;
  const out = {
    bpm: Math.round(analysis.bpm * 1000) / 1000,
    beats: analysis.beats.map(round),
    downbeats: analysis.downbeats.map(round),
    beatsPerBar: analysis.beatsPerBar,
    duration: round(analysis.duration),
    confidence: analysis.confidence,
    hits: analysis.hits.map((h) => ({ ...h, time: round(h.time), strength: Math.round(h.strength * 1000) / 1000 })),
  };
  // People get the facts in one line; programs get one object.
  console.log(
    asJson || !process.stdout.isTTY
      ? JSON.stringify(out)
      : `${out.bpm} BPM, ${out.beatsPerBar} beats per bar, ${out.beats.length} beats, first downbeat at ${out.downbeats[0] ?? '–'} s`,
  );
}
