import { describe, expect, it } from '@jest/globals';
import { USUAL_SETTINGS, bytesByEarlier } from '@core/formats';
import { FRAME_RATES } from '@core/time';
import { earlierRender } from './earlier-render';
import type { AskedFile } from './earlier-render';
import type { ExportJob } from './use-exports';

const usual = { at: 0, excerpt: null, layerIds: null, settings: USUAL_SETTINGS };
const asked: AskedFile = { kind: 'mp4', settings: USUAL_SETTINGS, layerIds: null, formatId: 'tall' };
const job = (bytes: number, more: Partial<ExportJob> = {}): ExportJob =>
  ({
    state: 'succeeded',
    exportKind: 'mp4',
    formatId: 'tall',
    what: usual,
    made: { frames: 100, bytes, width: 1080, height: 1920 },
    ...more,
  }) as ExportJob;

describe('the size of a file that is like one made before', () => {
  it('goes by the newest of the same format, or else of another', () => {
    const wide = job(5e6, { formatId: 'wide', made: { frames: 100, bytes: 5e6, width: 1920, height: 1080 } });
    expect(earlierRender([wide, job(3e6), job(4e6)], asked)?.bytes).toBe(3e6);
    expect(earlierRender([wide], asked)?.bytes).toBe(5e6);
    expect(earlierRender([], asked)).toBeNull();
  });
  it('does not go by files that were made otherwise, or not at all', () => {
    const others = [
      job(1e6, { state: 'failed' }),
      job(1e6, { exportKind: 'webm' }),
      job(1e6, { what: null }),
      job(1e6, { what: { ...usual, layerIds: ['a'] } }),
      job(1e6, { what: { ...usual, settings: { ...USUAL_SETTINGS, rate: { by: 'quality', quality: 'small' } } } }),
      job(1e6, { made: null }),
    ];
    for (const other of others) expect(earlierRender([other], asked)).toBeNull();
  });
  it('grows with pixels and frames', () => {
    const size = { width: 2160, height: 3840, frames: 50, frameRate: FRAME_RATES['30'] };
    expect(bytesByEarlier({ width: 1080, height: 1920, frames: 100, bytes: 3e6 }, size)).toBe(6e6);
  });
});
