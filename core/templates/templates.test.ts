import { beforeAll, describe, expect, it } from '@jest/globals';
import { isOnBeat, visibleHits } from '@core/checks';
import { tightBox, transformBox, unionBoxes } from '@core/geometry';
import type { Box } from '@core/geometry';
import { idsOf } from '@core/motion';
import {
  applyEdits,
  createPiece,
  familyOf,
  parsePiece,
  putIn,
  resolveTimes,
  safeBox,
  templateAlone,
} from '@core/piece';
import type { Edit, Layer, Piece } from '@core/piece';
import { findItem, prepareScene, sceneAt, tightTexts } from '@core/scene';
import type { DisplayItem, LayoutText } from '@core/scene';
import { SAMPLE_CONTENTS, SHIPPED_TEMPLATES, sampleValues } from '@core/templates';
import type { SampleContent } from '@core/templates';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, beatMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';
import { testFonts } from '../../tests/helpers/fonts';

let layoutText: LayoutText;
const fonts = testFonts();
const made = new Map<string, Piece>();

const pieceOf = (template: Piece, content: SampleContent): Piece => {
  const key = `${template.id} ${content}`;
  let piece = made.get(key);
  if (!piece) {
    piece = templateAlone(template, template, sampleValues(content, template.template!.slots))!;
    made.set(key, piece);
  }
  return piece;
};

beforeAll(async () => {
  for (const template of SHIPPED_TEMPLATES)
    for (const content of idsOf(SAMPLE_CONTENTS)) {
      const piece = pieceOf(template, content);
      for (const layer of piece.layers)
        if (layer.kind === 'text')
          await fonts.load(familyOf(piece.wardrobe, layer.content.family), layer.content.italic, layer.content.text);
    }
  layoutText = createLayoutCache(fonts);
}, 120_000);

/** What of an item has ink, pixels of the format. */
function inkOf(item: DisplayItem): Box | null {
  if (item.kind === 'shape') {
    const box = tightBox(item.path);
    return box && transformBox(item.matrix, box);
  }
  return 'children' in item ? unionBoxes(item.children.map(inkOf)) : transformBox(item.matrix, item.box);
}

const meets = (a: Box, b: Box): boolean => a[0] < b[2] - 1 && b[0] < a[2] - 1 && a[1] < b[3] - 1 && b[1] < a[3] - 1;
/** Letters may reach over an edge of the safe area by this share of the frame: overshoot of round ones. */
const OVERSHOOT = 0.004;

interface Seen {
  readonly layer: Layer;
  readonly ink: Box;
}

/** Moments at which nothing comes or goes: between the last entrance and the first exit of what is seen together. */
function restingMoments(piece: Piece): number[] {
  const times = resolveTimes(piece, null);
  return [0.42, 0.5, 0.6].map((share) => times.end * share);
}

describe.each(SHIPPED_TEMPLATES.map((template) => [template.name, template] as const))('%s', (_name, template) => {
  it('is a valid document with words to find it by', () => {
    expect(parsePiece(JSON.parse(JSON.stringify(template)))).toMatchObject({ ok: true });
    const { slots, help, mood } = template.template!;
    expect(slots.length).toBeGreaterThan(0);
    expect([help, mood]).not.toContain('');
    // A plate stands where nobody has put a picture.
    for (const slot of slots) expect(slot.kind === 'picture' || slot.sample !== '').toBe(true);
  });
  it('wears roles alone', () => {
    const shown = template.layers.flatMap((layer) =>
      Object.values(layer.tracks).flatMap((track) =>
        track ? [track.value, ...track.keyframes.map((key) => key.value)] : [],
      ),
    );
    expect(shown.filter((value) => typeof value === 'string' && value.startsWith('#'))).toEqual([]);
  });
  it.each(idsOf(SAMPLE_CONTENTS))('has room for %s in every format: no ink overlaps, is cut or unsafe', (content) => {
    const piece = pieceOf(template, content);
    const times = resolveTimes(piece, null);
    const filled = new Set(template.template!.slots.map((slot) => slot.id));
    for (const format of piece.formats) {
      const scene = prepareScene(piece, times, format.id);
      expect({ format: format.id, tooLong: tightTexts(scene, layoutText).filter((text) => text.isTooLong) }).toEqual({
        format: format.id,
        tooLong: [],
      });
      const safe = safeBox(format);
      const [slackX, slackY] = [format.width * OVERSHOOT, format.height * OVERSHOOT];
      for (const at of restingMoments(piece)) {
        const list = sceneAt(scene, at, layoutText);
        const seen = piece.layers.flatMap((layer): Seen[] => {
          const isContent =
            layer.kind === 'text' || (layer.slot?.part !== 'picture' && filled.has(layer.slot?.slotId ?? ''));
          const item = isContent && layer.kind !== 'group' ? findItem(list, layer.id) : null;
          const ink = item ? inkOf(item) : null;
          return ink ? [{ layer, ink }] : [];
        });
        const where = { format: format.id, at };
        for (const { layer, ink } of seen) {
          const [l, t, r, b] = ink;
          const isSafe =
            l >= safe[0] - slackX && t >= safe[1] - slackY && r <= safe[2] + slackX && b <= safe[3] + slackY;
          expect({ ...where, layer: layer.name, isSafe, ink }).toEqual({
            ...where,
            layer: layer.name,
            isSafe: true,
            ink,
          });
        }
        const overlaps = seen.flatMap((a, i) =>
          seen.slice(i + 1).flatMap((b) => (meets(a.ink, b.ink) ? [`${a.layer.name} on ${b.layer.name}`] : [])),
        );
        expect({ ...where, overlaps }).toEqual({ ...where, overlaps: [] });
      }
    }
  });
});

describe('the templates that ship', () => {
  it('have names and ids of their own', () => {
    for (const property of ['id', 'name'] as const)
      expect(new Set(SHIPPED_TEMPLATES.map((template) => template[property])).size).toBe(SHIPPED_TEMPLATES.length);
  });
  it('are put in at rest as they stand at home', () => {
    const [template] = SHIPPED_TEMPLATES;
    const piece = pieceOf(template!, 'sample');
    const [home, away] = [template!, piece].map((one) => prepareScene(one, resolveTimes(one, null), 'wide'));
    const inkIn = (scene: typeof home, name: string, one: Piece): Box =>
      inkOf(findItem(sceneAt(scene!, 3, layoutText), one.layers.find((layer) => layer.name === name)!.id)!)!;
    for (const name of ['Name', 'Line below', 'Plate']) {
      const [a, b] = [inkIn(home, name, template!), inkIn(away, name, piece)];
      a.forEach((edge, i) => expect(edge).toBeCloseTo(b[i]!, 3));
    }
  });
});

describe('a shipped template put in on a beat', () => {
  const ids = countingIds('put');
  it.each(SHIPPED_TEMPLATES.map((template) => [template.name, template] as const))(
    '%s has every visible hit on the lattice',
    (_, template) => {
      const empty = createPiece(
        { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['60'] },
        ids,
      );
      const times = resolveTimes(empty, null);
      const made = putIn(template, empty, ids)!;
      const { piece } = applyEdits(
        empty,
        [
          ...made.media.map((media): Edit => ({ type: 'media.add', media })),
          { type: 'layer.add', layers: made.layers },
          { type: 'layer.place', places: [{ id: made.group.id, at: beatMoment(8, times.grid) }] },
        ],
        times,
      );
      const hits = visibleHits(piece, resolveTimes(piece, null));
      expect(hits.length).toBeGreaterThan(0);
      expect(hits.filter((hit) => !isOnBeat(hit))).toEqual([]);
    },
  );
});
