import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { CHECKS, runThrough } from '@core/checks';
import { isColour } from '@core/colour';
import { EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import {
  EFFECT_KINDS,
  LAYER_KINDS,
  LAYER_KIND_IDS,
  MEDIA_KINDS,
  MEDIA_KIND_IDS,
  createLayer,
  createPiece,
  isEffectColour,
  parsePiece,
  resolveTimes,
} from '@core/piece';
import type { EffectParameter } from '@core/piece';
import { FRAME_RATES, freeMoment } from '@core/time';
import { SERVED_MEDIA } from '../../server/features/media/media-kinds';
import { MEDIA_ON_DESK } from '../../web/src/features/media/media-kinds';
import { EXPORTERS } from '../../server/render/export-kinds';
import { countingIds } from '../helpers/documents';

const formats = readFileSync('docs/FORMATS.md', 'utf8');

/** What every row of a table owes those who go by it. */
describe('tables of kinds', () => {
  it.each(LAYER_KIND_IDS)('a layer of kind %s can be made, stored, opened and read about', (kind) => {
    const needed: Record<string, object> = {
      text: { text: 'Nine days', family: 'syne' },
      path: { d: 'M0 0L1 1', box: [1, 1] },
      picture: { mediaId: 'none' },
      piece: { pieceId: 'other', mediaId: 'none' },
    };
    const layer = createLayer(
      kind,
      { name: kind, start: freeMoment(0), end: freeMoment(1), content: { ...needed[kind] } },
      countingIds(),
    );
    const base = createPiece(
      { name: 'p', formats: [{ id: 'f', name: 'F', width: 64, height: 64 }], frameRate: FRAME_RATES['30'] },
      countingIds('p'),
    );
    const piece = { ...base, layers: [layer] };
    expect(parsePiece(JSON.parse(JSON.stringify(piece)))).toEqual({ ok: true, piece });
    expect(LAYER_KINDS[kind].label).not.toBe('');
    expect(formats).toContain(`\`${kind}\``);
  });
  it.each(MEDIA_KIND_IDS)('media of kind %s are made, served, placed and described', (kind) => {
    expect(SERVED_MEDIA[kind].take).toBeInstanceOf(Function);
    expect(MEDIA_ON_DESK[kind].place).toBeInstanceOf(Function);
    expect(MEDIA_ON_DESK[kind].accept).not.toBe('');
    expect(formats).toContain(`\`${kind}\``);
    const { variant, extension } = MEDIA_KINDS[kind];
    expect(formats).toContain(`${variant} (.${extension})`);
  });
  it('files made of media differ in name and address', () => {
    const rows = MEDIA_KIND_IDS.map((id) => MEDIA_KINDS[id]);
    expect(new Set(rows.map((row) => row.variant)).size).toBe(rows.length);
    expect(new Set(rows.map((row) => row.extension)).size).toBe(rows.length);
  });
  it.each(EXPORT_KIND_IDS)('an export of kind %s is made by the server and described for people', (kind) => {
    expect(EXPORTERS[kind]).toBeInstanceOf(Function);
    const { label, hint, extension } = EXPORT_KINDS[kind];
    expect(hint.length).toBeGreaterThan(20);
    expect(formats).toContain(label);
    expect(formats).toContain(`.${extension}`);
  });
  it('exports differ in what they are called', () => {
    expect(new Set(EXPORT_KIND_IDS.map((id) => EXPORT_KINDS[id].label)).size).toBe(EXPORT_KIND_IDS.length);
  });
  it('effects say what their numbers are, within bounds, and are described', () => {
    for (const [kind, { parameters }] of Object.entries(EFFECT_KINDS)) {
      expect(formats).toContain(`\`${kind}\``);
      for (const parameter of Object.values<EffectParameter>(parameters)) {
        if (isEffectColour(parameter)) {
          expect(isColour(parameter.begins)).toBe(true);
          continue;
        }
        expect(parameter.begins).toBeGreaterThanOrEqual(parameter.min);
        expect(parameter.begins).toBeLessThanOrEqual(parameter.max);
      }
    }
  });
  it('checks run in the order of their table and say which of them found what', () => {
    const base = createPiece(
      { name: 'p', formats: [{ id: 'f', name: 'F', width: 64, height: 64 }], frameRate: FRAME_RATES['30'] },
      countingIds('p'),
    );
    const late = createLayer('ellipse', { name: 'Late', start: freeMoment(50), end: freeMoment(60) }, countingIds());
    const pinned = createLayer(
      'ellipse',
      { name: 'Lost', start: { kind: 'pinned', to: { type: 'marker', id: 'gone' }, last: 1 }, end: freeMoment(2) },
      countingIds('l'),
    );
    const piece = { ...base, layers: [late, pinned] };
    const noWords = (): never => {
      throw new Error('nothing to lay out');
    };
    const found = runThrough({ piece, times: resolveTimes(piece, null), layoutText: noWords });
    expect(found.map((f) => [f.check, f.severity, f.layerId])).toEqual([
      ['pins', 'error', pinned.id],
      ['seen', 'error', late.id],
      ['opening', 'warning', null],
      ['blank', 'warning', null],
    ]);
    expect(Object.values(CHECKS).every((row) => row.label.length > 0)).toBe(true);
  });
});
