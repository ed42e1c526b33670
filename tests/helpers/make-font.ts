import { deflateSync } from 'node:zlib';

/**
 * A made-up TrueType font of plain blocks: each letter is a box whose width and notch tell it from the others (OpenType
 * 1.9).
 */
export interface MadeFont {
  readonly family: string;
  readonly style: string;
  readonly weight: number;
  readonly italic?: boolean;
}

const UPEM = 1000;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789';

const bytes = (size: number, write: (view: DataView) => void): Uint8Array => {
  const out = new Uint8Array(size);
  write(new DataView(out.buffer));
  return out;
};
const joined = (parts: readonly Uint8Array[]): Uint8Array => new Uint8Array(Buffer.concat(parts));
const padded = (data: Uint8Array): Uint8Array => joined([data, new Uint8Array((4 - (data.length % 4)) % 4)]);

/** A glyph of rectangles: [left, bottom, right, top], font units. */
function glyph(boxes: readonly (readonly [number, number, number, number])[]): Uint8Array {
  if (boxes.length === 0) return new Uint8Array(0);
  const points = boxes.flatMap(
    ([l, b, r, t]) =>
      [
        [l, b],
        [l, t],
        [r, t],
        [r, b],
      ] as const,
  );
  return padded(
    bytes(10 + boxes.length * 2 + 2 + points.length * 5, (v) => {
      v.setInt16(0, boxes.length);
      [
        Math.min(...boxes.map((x) => x[0])),
        Math.min(...boxes.map((x) => x[1])),
        Math.max(...boxes.map((x) => x[2])),
        Math.max(...boxes.map((x) => x[3])),
      ].forEach((n, i) => v.setInt16(2 + i * 2, n));
      boxes.forEach((_, i) => v.setUint16(10 + i * 2, i * 4 + 3));
      let at = 12 + boxes.length * 2;
      points.forEach(() => v.setUint8(at++, 1));
      for (const axis of [0, 1] as const) {
        let before = 0;
        for (const point of points) {
          v.setInt16(at, point[axis] - before);
          before = point[axis];
          at += 2;
        }
      }
    }),
  );
}

function nameTable({ family, style }: MadeFont): Uint8Array {
  const records = [
    [1, family],
    [2, style],
    [4, `${family} ${style}`],
    [6, `${family}-${style}`.replaceAll(' ', '')],
    [16, family],
    [17, style],
  ] as const;
  const texts = records.map(([, text]) => Buffer.from(text, 'utf16le').swap16());
  const head = bytes(6 + records.length * 12, (v) => {
    v.setUint16(2, records.length);
    v.setUint16(4, 6 + records.length * 12);
    let at = 0;
    records.forEach(([id], i) => {
      [3, 1, 0x409, id, texts[i]!.length, at].forEach((n, k) => v.setUint16(6 + i * 12 + k * 2, n));
      at += texts[i]!.length;
    });
  });
  return joined([head, ...texts]);
}

/** @returns A TTF with the letters and digits of ASCII and a space. */
export function makeFont(font: MadeFont): Uint8Array {
  const stem = 60 + font.weight / 8;
  const glyphs = [
    glyph([[50, 0, 450, 700]]),
    glyph([]),
    ...[...LETTERS].map((c, i) => {
      const width = 300 + (i % 9) * 40;
      const height = /[a-z]/.test(c) ? 500 : 700;
      return glyph([
        [40, 0, 40 + stem, height],
        [40 + stem, height - stem, width, height],
        [40 + stem, 60 + (i % 5) * 60, width - 60, 60 + (i % 5) * 60 + stem / 2],
      ]);
    }),
  ];
  const advances = [500, 250, ...[...LETTERS].map((_, i) => 340 + (i % 9) * 40)];
  const codes = [32, ...[...LETTERS].map((c) => c.charCodeAt(0))];
  const order = codes.map((code, i) => ({ code, glyph: i + 1 })).sort((a, b) => a.code - b.code);
  const offsets = glyphs.reduce<number[]>((all, g) => [...all, all[all.length - 1]! + g.length], [0]);
  const tables: Record<string, Uint8Array> = {
    'OS/2': bytes(96, (v) => {
      v.setUint16(0, 4);
      v.setInt16(2, 450);
      v.setUint16(4, font.weight);
      v.setUint16(6, 5);
      v.setUint16(62, font.italic ? 1 : 64);
      v.setUint16(64, 32);
      v.setUint16(66, 122);
      v.setInt16(68, 800);
      v.setInt16(70, -200);
      v.setUint16(74, 800);
      v.setUint16(76, 200);
      v.setInt16(86, 500);
      v.setInt16(88, 700);
    }),
    cmap: bytes(28 + order.length * 12, (v) => {
      v.setUint16(2, 1);
      v.setUint16(4, 3);
      v.setUint16(6, 10);
      v.setUint32(8, 12);
      v.setUint16(12, 12);
      v.setUint32(16, 16 + order.length * 12);
      v.setUint32(24, order.length);
      order.forEach(({ code, glyph: g }, i) => [code, code, g].forEach((n, k) => v.setUint32(28 + i * 12 + k * 4, n)));
    }),
    glyf: joined(glyphs),
    head: bytes(54, (v) => {
      v.setUint32(0, 0x00010000);
      v.setUint32(12, 0x5f0f3cf5);
      v.setUint16(18, UPEM);
      v.setInt16(36, 0);
      v.setInt16(38, -200);
      v.setInt16(40, 700);
      v.setInt16(42, 800);
      v.setInt16(50, 1);
    }),
    hhea: bytes(36, (v) => {
      v.setUint32(0, 0x00010000);
      v.setInt16(4, 800);
      v.setInt16(6, -200);
      v.setUint16(10, 700);
      v.setUint16(34, glyphs.length);
    }),
    hmtx: bytes(glyphs.length * 4, (v) =>
      advances.forEach((n, i) => {
        v.setUint16(i * 4, n);
        v.setInt16(i * 4 + 2, i === 0 ? 50 : i === 1 ? 0 : 40);
      }),
    ),
    loca: bytes(offsets.length * 4, (v) => offsets.forEach((n, i) => v.setUint32(i * 4, n))),
    maxp: bytes(32, (v) => {
      v.setUint32(0, 0x00010000);
      v.setUint16(4, glyphs.length);
      v.setUint16(6, 12);
      v.setUint16(8, 3);
    }),
    name: nameTable(font),
    post: bytes(32, (v) => v.setUint32(0, 0x00030000)),
  };
  const tags = Object.keys(tables).sort();
  let at = 12 + tags.length * 16;
  const head = bytes(at, (v) => {
    v.setUint32(0, 0x00010000);
    v.setUint16(4, tags.length);
    tags.forEach((tag, i) => {
      [...tag].forEach((c, k) => v.setUint8(12 + i * 16 + k, c.charCodeAt(0)));
      v.setUint32(12 + i * 16 + 8, at);
      v.setUint32(12 + i * 16 + 12, tables[tag]!.length);
      at += padded(tables[tag]!).length;
    });
  });
  return joined([head, ...tags.map((tag) => padded(tables[tag]!))]);
}

/** The same font as WOFF 1.0. */
export function toWoff(sfnt: Uint8Array): Uint8Array {
  const view = new DataView(sfnt.buffer, sfnt.byteOffset, sfnt.byteLength);
  const count = view.getUint16(4);
  const entries = Array.from({ length: count }, (_, i) => {
    const [tag, checksum, offset, length] = [0, 4, 8, 12].map((k) => view.getUint32(12 + i * 16 + k)) as [
      number,
      number,
      number,
      number,
    ]; // four are read
    const raw = sfnt.slice(offset, offset + length);
    const packed = new Uint8Array(deflateSync(raw));
    return { tag, checksum, length, data: packed.length < raw.length ? packed : raw };
  });
  let at = 44 + count * 20;
  const head = bytes(at, (v) => {
    [0x774f4646, view.getUint32(0)].forEach((n, i) => v.setUint32(i * 4, n));
    v.setUint16(12, count);
    v.setUint32(16, sfnt.length);
    entries.forEach((e, i) => {
      [e.tag, at, e.data.length, e.length, e.checksum].forEach((n, k) => v.setUint32(44 + i * 20 + k * 4, n));
      at += padded(e.data).length;
    });
    v.setUint32(8, at);
  });
  return joined([head, ...entries.map((e) => padded(e.data))]);
}
