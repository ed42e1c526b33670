import { writeFile } from 'node:fs/promises';
import { captionCues, timingSheet, writeMarkerCsv, writeMidiTempo, writeOtio, writeSrt, writeVtt } from '@core/formats';
import type { Cue, TimingSheet } from '@core/formats';
import { resolveTimes } from '@core/piece';
import { AppError } from '../platform/errors';
import type { ExportRun } from './export-run';

/** Files of words and times: nothing is painted for them. */

async function write(run: ExportRun, content: string | Uint8Array, count: number): Promise<Record<string, unknown>> {
  await writeFile(run.out, content);
  return { entries: count };
}

/** @throws AppError NO_CAPTIONS if nothing is said in what is rendered. */
export const captionsAs =
  (print: (cues: readonly Cue[]) => string) =>
  async (run: ExportRun): Promise<Record<string, unknown>> => {
    const { piece, analysis } = run.input;
    const cues = captionCues(piece, resolveTimes(piece, analysis), run.excerpt ?? null);
    if (cues.length === 0) throw new AppError('NO_CAPTIONS');
    return write(run, print(cues), cues.length);
  };

export const timesAs =
  (print: (sheet: TimingSheet) => string | Uint8Array) =>
  async (run: ExportRun): Promise<Record<string, unknown>> => {
    const sheet = timingSheet(run.input.piece, run.input.analysis, run.excerpt ?? null);
    if (sheet.duration <= 0) throw new AppError('NOTHING_TO_RENDER');
    return write(run, print(sheet), sheet.beats.length + sheet.sections.length + sheet.markers.length);
  };

export const srt = captionsAs(writeSrt);
export const vtt = captionsAs(writeVtt);
export const markersCsv = timesAs(writeMarkerCsv);
export const midiTempo = timesAs(writeMidiTempo);
export const otio = timesAs((sheet) => writeOtio(sheet, `${sheet.name}.mp4`));
