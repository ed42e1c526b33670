import { execFileSync } from 'node:child_process';

/** Frames that a decoder finds in a file. */
export const framesOf = (file: string): number =>
  Number(
    execFileSync('ffprobe', [
      ...['-v', 'error', '-count_frames', '-select_streams', 'v:0'],
      ...['-show_entries', 'stream=nb_read_frames', '-of', 'csv=p=0', file],
    ]),
  );
