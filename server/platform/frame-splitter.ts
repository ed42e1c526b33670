import type { FrameType } from '@core/formats';

/** Tells where each picture ends in a stream of pictures that stand one behind the other. */
export interface FrameSplitter {
  /** Takes the next bytes of the stream. @returns the places in the stream where pictures end that end in them. */
  push(chunk: Uint8Array): number[];
}

/**
 * The marker that ends a JPEG does not stand in the data of one: there every 0xff is followed by a zero or a restart
 * marker (ITU-T T.81, B.1.1.5).
 */
const END_OF_IMAGE = Buffer.from([0xff, 0xd9]);

function splitJpeg(): FrameSplitter {
  let at = 0;
  let isHalf = false; // the first byte of the marker was the last of the chunk before
  return {
    push(chunk) {
      const bytes = Buffer.from(chunk.buffer, chunk.byteOffset, chunk.length);
      const ends: number[] = [];
      if (isHalf && bytes[0] === END_OF_IMAGE[1]) ends.push(at + 1);
      for (let i = bytes.indexOf(END_OF_IMAGE); i >= 0; i = bytes.indexOf(END_OF_IMAGE, i + 2)) ends.push(at + i + 2);
      at += bytes.length;
      isHalf = bytes.at(-1) === END_OF_IMAGE[0];
      return ends;
    },
  };
}

/** "RIFF", then the length of what follows; chunks have even lengths (RFC 9649, section 2.4). */
const RIFF_HEAD_BYTES = 8;

function splitWebp(): FrameSplitter {
  let at = 0;
  let end = 0;
  let head: number[] = [];
  return {
    push(chunk) {
      const ends: number[] = [];
      let i = 0;
      while (i < chunk.length) {
        if (head.length < RIFF_HEAD_BYTES) {
          head.push(chunk[i++]!); // i is below the length
          if (head.length < RIFF_HEAD_BYTES) continue;
          const length = Buffer.from(head).readUInt32LE(4);
          end = at + i + length + (length % 2);
        }
        const step = Math.min(chunk.length - i, end - at - i);
        i += step;
        if (at + i < end) continue;
        ends.push(end);
        head = [];
      }
      at += chunk.length;
      return ends;
    },
  };
}

export const createSplitter = (type: FrameType): FrameSplitter => (type === 'image/jpeg' ? splitJpeg() : splitWebp());
