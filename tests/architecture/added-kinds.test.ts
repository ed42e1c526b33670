import { describe, expect, it } from '@jest/globals';
import * as z from 'zod';
import { EXPORT_KINDS, EXPORT_KIND_IDS } from '../../core/formats/export-kinds';
import { LAYER_KINDS, LAYER_KIND_IDS } from '../../core/piece/document/layer-kinds';
import { MEDIA_KINDS, MEDIA_KIND_IDS } from '../../core/piece/document/media-kinds';

/**
 * A kind is its rows: put into the tables and nowhere else, it is found everywhere. Schemas are made of the tables when
 * they are first loaded, so they are loaded after the rows are in.
 */
const SAND = {
  label: 'Sand',
  content: z.strictObject({ grains: z.number().int().min(1).max(9) }),
  properties: { position: [0, 0], opacity: 1, fill: '#FFB74A' },
  mediaOf: () => null,
};
describe('a kind that is put into its tables', () => {
  it('of layer has a schema, an item, a menu entry and details', async () => {
    Object.assign(LAYER_KINDS, { sand: SAND });
    LAYER_KIND_IDS.push('sand' as never);
    const { LAYER_ITEMS } = await import('../../core/scene/layers/layer-items');
    const { LAYERS_ON_DESK, addEntries, onDesk } = await import('../../web/src/features/layers/layer-kinds');
    const { countingIds } = await import('../helpers/documents');
    Object.assign(LAYER_ITEMS, { sand: LAYER_ITEMS.rectangle });
    const icon = 'a picture of sand';
    Object.assign(LAYERS_ON_DESK, {
      sand: { icon: () => icon, add: [{ id: 'sand', label: 'Sand', icon, run: () => {} }], first: ['fill'] },
    });
    const piece = await import('@core/piece');
    const { shownProperties } = await import('../../web/src/features/details/shown-properties');
    const { freeMoment, FRAME_RATES } = await import('@core/time');
    const layer = piece.createLayer(
      'sand' as never,
      { name: 'Beach', start: freeMoment(0), end: freeMoment(2), content: { grains: 3 } },
      countingIds(),
    );
    const base = piece.createPiece(
      { name: 'p', formats: [{ id: 'f', name: 'F', width: 64, height: 64 }], frameRate: FRAME_RATES['30'] },
      countingIds('p'),
    );
    const stored = JSON.parse(JSON.stringify({ ...base, layers: [layer] })) as { layers: { content: unknown }[] };
    expect(piece.parsePiece(stored).ok).toBe(true);
    stored.layers[0]!.content = { grains: 30 };
    expect(piece.parsePiece(stored).ok).toBe(false);
    expect(addEntries().map((entry) => entry.label)).toContain('Sand');
    expect(onDesk(layer).icon(layer, [])).toBe(icon);
    // What it has and nothing else, its first property first.
    expect(shownProperties(layer, {})).toEqual(['fill', 'position', 'opacity']);
  });
  it('of media is known by its bytes, has an address and a place on the desk', async () => {
    const scent = { label: 'scent', variant: 'scent', extension: 'sct', type: 'application/x-scent', isOffered: false };
    Object.assign(MEDIA_KINDS, { scent });
    MEDIA_KIND_IDS.push('scent' as never);
    const { SERVED_MEDIA } = await import('../../server/features/media/media-kinds');
    const { MEDIA_ON_DESK } = await import('../../web/src/features/media/media-kinds');
    Object.assign(SERVED_MEDIA, {
      scent: { demuxers: {}, isOwn: (head: Uint8Array) => head[0] === 0x53, take: () => Promise.resolve({}) },
    });
    Object.assign(MEDIA_ON_DESK, { scent: { accept: '.scent', waiting: null, place: () => 'it smells of salt' } });
    const { sniff } = await import('../../server/features/media/sniff');
    expect(await sniff(new Uint8Array([0x53, 1, 2, 3]))).toEqual({ kind: 'scent', format: '' });
    expect(await sniff(new Uint8Array([0x54, 1, 2, 3]))).toBeNull();
  });
  it('of export has a row that the panel and the API go by', async () => {
    Object.assign(EXPORT_KINDS, { psalm: { ...EXPORT_KINDS.wav, label: 'Psalm', extension: 'psalm' } });
    EXPORT_KIND_IDS.push('psalm' as never);
    const { exportPayload } = await import('../../server/jobs/export-payload');
    const asked = { pieceId: 'p', formatId: 'f', document: {}, kind: 'psalm' };
    expect(exportPayload.parse(asked).kind).toBe('psalm');
    expect(exportPayload.safeParse({ ...asked, kind: 'ode' }).success).toBe(false);
  });
  it('of check runs with the others, in its place', async () => {
    const text = 'There is no sea in it.';
    const finding = { severity: 'warning', text, layerId: null, formatId: null, at: null, wantedStay: null };
    const { CHECKS, CHECK_IDS, runThrough } = await import('@core/checks');
    Object.assign(CHECKS, { sea: { label: 'The sea', run: () => [finding] } });
    CHECK_IDS.push('sea' as never);
    const { newPiece } = await import('../helpers/documents');
    const { resolveTimes } = await import('@core/piece');
    const piece = newPiece('Empty');
    const layoutText = (): never => {
      throw new Error('nothing to lay out');
    };
    expect(runThrough({ piece, times: resolveTimes(piece, null), layoutText })).toEqual([{ ...finding, check: 'sea' }]);
  });
});
