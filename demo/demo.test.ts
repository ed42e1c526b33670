import { describe, expect, it } from '@jest/globals';
import { pieceSchema, resolveTimes } from '@core/piece';
import { transformBox } from '@core/geometry';
import { prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { demoSongs } from '../tests/helpers/demo-files';
import { steadyAnalysis } from '../tests/helpers/documents';
import { testFonts } from '../tests/helpers/fonts';
import { logoIntro } from './logo-intro';
import { kiteMakersQuote, openingTitle } from './pieces';
import { createRandom } from './synth';

const media = { id: 'song', hash: 'a'.repeat(64), kind: 'audio' as const, name: 'Song.wav', duration: 34 };

describe('the demo pieces', () => {
  const cases = [
    ['Nine days of wind', openingTitle, steadyAnalysis(118, 0.2, 64)],
    ['A question for the wind', kiteMakersQuote, steadyAnalysis(84, 0.35, 36)],
    ['Kite Week', logoIntro, steadyAnalysis(118, 0.2, 64)],
  ] as const;
  it.each(cases)('%s is a valid document, the same on every run, with every time pinned', (_name, make, analysis) => {
    const piece = make(media);
    expect(pieceSchema.safeParse(piece).success).toBe(true);
    expect(make(media)).toEqual(piece);
    expect(resolveTimes(piece, analysis).missing).toEqual([]);
    expect(piece.layers.every((l) => l.start.kind === 'pinned' && l.end.kind === 'pinned')).toBe(true);
  });
  it.each(cases)(
    '%s keeps its words inside the frame while they stand, in every format',
    async (_name, make, analysis) => {
      const piece = make(media);
      const fonts = testFonts();
      for (const layer of piece.layers)
        if (layer.kind === 'text') await fonts.load(layer.content.family, false, layer.content.text);
      const times = resolveTimes(piece, analysis);
      const layout = createLayoutCache(fonts);
      const outside: string[] = [];
      for (const format of piece.formats) {
        const scene = prepareScene(piece, times, format.id);
        for (const layer of piece.layers) {
          if (layer.kind !== 'text') continue;
          const middle = (Math.max(0, times.timeOf(layer.start)) + Math.min(times.end, times.timeOf(layer.end))) / 2;
          const item = sceneAt(scene, middle, layout).items.find((i) => i.layerId === layer.id);
          if (!item) continue;
          const [l, , r] = transformBox(item.matrix, item.box);
          if (l < 0 || r > format.width)
            outside.push(`${layer.name} in ${format.name}: ${Math.round(l)} to ${Math.round(r)} of ${format.width}`);
        }
      }
      expect(outside).toEqual([]);
    },
  );
});

describe('the demo songs', () => {
  it('begin their beats on a downbeat and hold their tempo', () => {
    for (const song of demoSongs()) {
      const gaps = song.beats.slice(1).map((t, i) => t - song.beats[i]!);
      expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThan(1e-9);
      expect(60 / gaps[0]!).toBeCloseTo(song.bpm, 6);
      expect(song.beats.length % song.beatsPerBar).toBe(0);
    }
  });
  it('use numbers that come out the same everywhere', () => {
    const random = createRandom(118);
    expect([random(), random(), random()].map((v) => v.toFixed(6))).toEqual(
      (() => {
        const again = createRandom(118);
        return [again(), again(), again()].map((v) => v.toFixed(6));
      })(),
    );
    expect(createRandom(1)()).not.toBe(createRandom(2)());
  });
});
