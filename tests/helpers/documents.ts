import type { SongAnalysis } from '@core/audio';
import { constantTrack, createLayer, createMusic, createPiece, ownTrack } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { FRAME_RATES, freeMoment } from '@core/time';
import type { Moment } from '@core/time';

/** Counting ids: the same calls give the same document. */
export function countingIds(prefix = 'id'): () => string {
  let n = 0;
  return () => `${prefix}${++n}`;
}

export const SONG_HASH = 'a'.repeat(64);

/** What an analysis of a steady song would say. */
export function steadyAnalysis(bpm: number, first: number, count: number, beatsPerBar = 4): SongAnalysis {
  const beats = Array.from({ length: count }, (_, i) => first + (i * 60) / bpm);
  return {
    version: 2,
    duration: beats[count - 1]! + 1,
    bpm,
    beats,
    downbeats: beats.filter((_, i) => i % beatsPerBar === 0),
    beatsPerBar,
    tempi: [{ bpm, likelihood: 0.9 }],
    bars: beats.flatMap((_, beat) => (beat % beatsPerBar === 0 ? [{ beat, beatsPerBar, groups: [], sound: [] }] : [])),
    energy: beats.map(() => 0.5),
    sections: [],
    drops: [],
    fills: [],
    silences: [],
    loudness: null,
    curveRate: 25,
    curves: { low: [], mid: [], high: [] },
    confidence: beats.map(() => 0.9),
    hits: beats.map((time, i) => ({ time, class: i % 2 ? ('mid' as const) : ('low' as const), strength: 1 })),
    peakRate: 100,
    peaks: [],
    rms: [],
  };
}

export const pin = (beat: number, offset?: Extract<Moment, { kind: 'pinned' }>['offset']): Moment => ({
  kind: 'pinned',
  to: { type: 'beat', beat },
  ...(offset ? { offset } : {}),
  last: 0,
});

/** A piece with a song, markers, and a layer that has moments of every kind. */
export function pieceWithSong(): { piece: Piece; layer: Layer } {
  const ids = countingIds();
  const base = createPiece(
    {
      name: 'Kite Week',
      formats: [
        { id: 'wide', name: 'Wide', width: 1920, height: 1080 },
        { id: 'tall', name: 'Tall', width: 1080, height: 1920 },
      ],
      frameRate: FRAME_RATES['30'],
    },
    ids,
  );
  const layer = createLayer(
    'rectangle',
    { name: 'Flag', start: pin(0), end: pin(16, { unit: 'beats', value: -0.5 }) },
    ids,
  );
  ownTrack(layer, 'opacity').keyframes = [
    { id: 'k-beat', at: pin(2), value: 0, easing: { type: 'linear' } },
    { id: 'k-fraction', at: pin(4.75), value: 1, easing: { type: 'hold' } },
    { id: 'k-offset', at: pin(6, { unit: 'seconds', value: 0.05 }), value: 0.5, easing: { type: 'linear' } },
    {
      id: 'k-hit',
      at: { kind: 'pinned', to: { type: 'hit', id: `${SONG_HASH.slice(0, 8)}:8` }, last: 0 },
      value: 0.2,
      easing: { type: 'linear' },
    },
    {
      id: 'k-marker',
      at: { kind: 'pinned', to: { type: 'marker', id: 'drop' }, last: 0 },
      value: 0.3,
      easing: { type: 'linear' },
    },
    { id: 'k-free', at: freeMoment(3.3), value: 0.4, easing: { type: 'linear' } },
  ];
  const media = { id: 'song', hash: SONG_HASH, kind: 'audio' as const, name: 'song.wav', duration: 30 };
  const piece: Piece = {
    ...base,
    end: pin(16),
    background: constantTrack('#000000'),
    media: [media],
    music: createMusic(media),
    markers: [{ id: 'drop', name: 'Drop', colour: '#54c6c0', at: pin(9) }],
    layers: [layer],
  };
  return { piece, layer };
}

let pieces = 0;
/** An empty piece of one small format. */
export const newPiece = (title: string): Piece =>
  createPiece(
    { name: title, formats: [{ id: 'wide', name: 'Wide', width: 64, height: 36 }], frameRate: FRAME_RATES['30'] },
    countingIds(`${title.replace(/\W/g, '')}-${++pieces}-`),
  );
