import { songOf } from '../document/media-of';
import { hitId } from '../../audio';
import type { SongAnalysis } from '../../audio';
import { resolveMoment } from '../../time';
import type { BeatGrid, Moment, Seconds, TimeTargets } from '../../time';
import { visitLayerMoments, visitTrackMoments } from '../document/layer-moments';
import type { Track } from '../../motion';
import { pieceGrid } from '../song/music-grid';
import { MAX_PIECE_SECONDS } from '../document/schema';
import type { Piece } from '../document/schema';
import { heardTimes, songParts } from '../song/song-parts';
import { heardIn } from './heard';
import type { Heard } from './heard';

/** What the times of a piece hang on, resolved once an edit. */
export interface ResolvedTimes {
  readonly targets: TimeTargets;
  readonly grid: BeatGrid;
  readonly end: Seconds;
  /** The grid that other music or another tempo would have, with the same analysis. */
  readonly regrid: (piece: Pick<Piece, 'music' | 'tempo'>) => BeatGrid;
  /** Seconds of any moment of the piece. */
  readonly timeOf: (moment: Moment) => Seconds;
  /** What is heard of the music while the piece plays. */
  readonly heard: Heard;
  /** Places whose pin has lost its target; they stay at their last time. */
  readonly missing: readonly MissingPin[];
}

export interface MissingPin {
  readonly layerId: string | null;
  readonly where: string;
  readonly moment: Moment;
}

type Visit = (moment: Moment, where: string, layerId: string | null) => Moment | void;

/**
 * Calls `visit` on every moment of a document; a returned moment replaces it. Give it a draft to change a document;
 * what is only looked at isn't written to.
 */
export function visitMoments(piece: Piece, visit: Visit): void {
  const at = <K extends string>(holder: Record<K, Moment>, key: K, where: string, layerId: string | null) => {
    const next = visit(holder[key], where, layerId);
    if (next) holder[key] = next;
  };
  at(piece, 'end', 'end of the piece', null);
  for (const key of piece.background.keyframes) at(key, 'at', 'background keyframe', null);
  for (const marker of piece.markers) at(marker, 'at', `marker ${marker.name}`, null);
  if (piece.poster) at(piece as { poster: Moment }, 'poster', 'poster', null); // not null: asked just now
  const soundTrack = (track: Track, where: string) =>
    visitTrackMoments(track, (moment) => visit(moment, `${where} keyframe`, null));
  if (piece.music) soundTrack(piece.music.volume, 'volume');
  for (const sound of piece.sounds) {
    at(sound, 'start', `sound ${sound.name}`, null);
    soundTrack(sound.volume, `volume of ${sound.name}`);
    soundTrack(sound.pan, `pan of ${sound.name}`);
  }
  for (const transition of piece.transitions) at(transition, 'at', 'transition', transition.toId);
  for (const layer of piece.layers) {
    at(layer, 'start', 'start', layer.id);
    at(layer, 'end', 'end', layer.id);
    visitLayerMoments(layer, (moment, where) => visit(moment, where, layer.id));
  }
}

/** The moments of a document as a list, without changing anything. */
export function listMoments(piece: Piece): { moment: Moment; where: string; layerId: string | null }[] {
  const out: { moment: Moment; where: string; layerId: string | null }[] = [];
  visitMoments(piece, (moment, where, layerId) => void out.push({ moment, where, layerId }));
  return out;
}

/**
 * Turns moments into seconds. Markers are resolved first, each against the beats, hits and the markers listed before
 * it: a marker pinned to a later marker keeps its last time, so cycles cannot arise.
 */
export function resolveTimes(piece: Piece, analysis: SongAnalysis | null): ResolvedTimes {
  const grid = pieceGrid(piece, analysis);
  const hits = new Map<string, Seconds>();
  if (piece.music && analysis) {
    const hash = songOf(piece)?.hash ?? '';
    const parts = songParts(piece.music);
    for (const [i, hit] of analysis.hits.entries()) {
      // A hit in a repeated stretch is heard more than once; the first keeps the plain name, so that pins to it hold.
      heardTimes(parts, hit.time).forEach((time, k) =>
        hits.set(k === 0 ? hitId(hash, i) : `${hitId(hash, i)}@${k}`, time),
      );
    }
  }
  const markers = new Map<string, Seconds>();
  const targets: TimeTargets = { grid, hits, markers };
  for (const marker of piece.markers) markers.set(marker.id, resolveMoment(marker.at, targets).seconds);
  const missing: MissingPin[] = [];
  for (const { moment, where, layerId } of listMoments(piece)) {
    if (resolveMoment(moment, targets).missing) missing.push({ layerId, where, moment });
  }
  const timeOf = (moment: Moment) => resolveMoment(moment, targets).seconds;
  const end = Math.min(MAX_PIECE_SECONDS, Math.max(0, timeOf(piece.end)));
  return {
    targets,
    grid,
    regrid: (other) => pieceGrid(other, analysis),
    end,
    heard: heardIn({ music: piece.music, analysis, grid, end }),
    timeOf,
    missing,
  };
}

/** Writes the present time of every pin into its `last`, in a draft; done before the music changes. */
export function rememberTimes(piece: Piece, targets: TimeTargets): void {
  visitMoments(piece, (moment) => {
    if (moment.kind === 'free') return;
    const { seconds, missing } = resolveMoment(moment, targets);
    return missing || seconds === moment.last ? undefined : { ...moment, last: seconds };
  });
}
