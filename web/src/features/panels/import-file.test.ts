import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import { EMPTY_HISTORY } from '@core/piece';
import type { MediaRef } from '@core/piece';
import { newPiece, steadyAnalysis } from '../../../../tests/helpers/documents';

/** Bringing files in, against a server that is played here. */
const analysis = steadyAnalysis(120, 0.5, 100);
const song: MediaRef = { id: 'song', hash: 'a'.repeat(64), kind: 'audio', name: 'salt.wav', duration: 50 };
const server = {
  answer: null as unknown as { media: MediaRef; state: string; warning: string | null } | Error,
  states: [] as { state: string; progress: number; error: string | null }[],
  asked: 0,
};

jest.unstable_mockModule('../../platform/upload-media', () => ({
  uploadMedia: async (_file: File, _as: string, onProgress: (share: number) => void, signal: AbortSignal) => {
    onProgress(0.5);
    if (signal.aborted) throw new DOMException('cancelled', 'AbortError');
    if (server.answer instanceof Error) throw server.answer;
    return server.answer;
  },
}));
jest.unstable_mockModule('../../platform/news', () => ({
  nextNews: async () => {},
  nextNewsOfMedia: async () => {},
  onNews: () => () => {},
}));
jest.unstable_mockModule('../../platform/api', () => {
  class ApiError extends Error {
    constructor(
      readonly code: string,
      message: string,
    ) {
      super(message);
    }
  }
  const state = () => {
    const now = server.states[Math.min(server.asked++, server.states.length - 1)]!;
    return { media: song, warning: null, ...now };
  };
  return {
    ApiError,
    saidBy: (error: unknown, otherwise: string) => (error instanceof ApiError ? error.message : otherwise),
    call: async (answer: unknown) => answer,
    api: { media: { ':hash': { $get: () => state(), analysis: { $get: () => analysis } } } },
  };
});
const { importFile } = await import('./import-file');
const { importFiles, useImports } = await import('./imports');
const { ApiError } = await import('../../platform/api');
const { openPiece, useDesk } = await import('../../store/desk-store');

const desk = () => useDesk.getState();
const file = new File(['x'], 'salt.wav');
const bring = (wanted: Parameters<typeof importFile>[1] = 'any', signal = new AbortController().signal) => {
  const stages: string[] = [];
  return importFile(file, wanted, (p) => p && stages.push(p.stage), signal).then(() => stages);
};

beforeEach(() => {
  openPiece(newPiece('Import'), 1, EMPTY_HISTORY);
  Object.assign(server, {
    answer: { media: song, state: 'preparing', warning: null },
    states: [
      { state: 'preparing', progress: 0.3, error: null },
      { state: 'ready', progress: 1, error: null },
    ],
    asked: 0,
  });
});

describe('bringing files in', () => {
  const picture = (name: string) => ({
    media: { id: name, hash: 'b'.repeat(64), kind: 'picture' as const, name, width: 40, height: 30 },
    state: 'ready',
    warning: null,
  });
  it('that were dropped together brings all of them in, in order, and lists them meanwhile', async () => {
    const seen: string[][] = [];
    const stop = useImports.subscribe(({ list }) => seen.push(list.map(({ name }) => name)));
    let n = 0;
    Object.defineProperty(server, 'answer', { get: () => picture(`p${++n}`), configurable: true });
    await importFiles(['a.png', 'b.png', 'c.png'].map((name) => new File(['x'], name)));
    stop();
    Object.defineProperty(server, 'answer', { value: picture('x'), writable: true, configurable: true });
    // Each answer is looked at twice.
    expect(desk().piece!.layers.map(({ name }) => name)).toEqual(['p2', 'p4', 'p6']);
    expect(seen).toContainEqual(['a.png', 'b.png', 'c.png']);
    expect(useImports.getState().list).toEqual([]);
  });
  it('goes into no other piece than the one they were dropped on', async () => {
    const coming = bring();
    openPiece(newPiece('Another'), 1, EMPTY_HISTORY);
    await coming;
    expect(desk().piece!.music).toBeNull();
    expect(desk().notice).toContain('its piece was closed');
  });
});

describe('bringing a file in', () => {
  it('a song is waited for, becomes the music with its beats at once, and gives an empty piece its length', async () => {
    expect(await bring()).toEqual(expect.arrayContaining(['Uploading', 'Detecting beats']));
    expect(desk().piece!.music!.mediaId).toBe('song');
    expect(desk().analysis).toBe(analysis);
    expect(desk().times!.end).toBeCloseTo(30, 6);
    expect(desk().notice).toBe('Imported salt.wav');
  });
  it('a picture becomes a layer, a font a face to choose', async () => {
    server.answer = {
      media: { id: 'p', hash: 'b'.repeat(64), kind: 'picture', name: 'harbour.png', width: 40, height: 30 },
      state: 'ready',
      warning: 'It is large.',
    };
    await bring();
    expect(desk().piece!.layers[0]!.kind).toBe('picture');
    expect(desk().notice).toBe('It is large.');
    server.answer = {
      media: {
        id: 'f',
        hash: 'c'.repeat(64),
        kind: 'font',
        name: 'lumo.ttf',
        font: { family: 'Lumo Block', style: 'Bold', italic: false, weights: [700, 700], axes: [], ranges: [32, 126] },
      },
      state: 'ready',
      warning: null,
    };
    await bring();
    expect(desk().notice).toContain('Lumo Block');
  });
  it('what is of another kind, cannot be read, or is called off changes nothing and says so', async () => {
    await bring(['picture']);
    expect(desk().notice).toContain('is a song; here a picture is wanted');
    server.states = [{ state: 'failed', progress: 0, error: 'It has no sound.' }];
    await bring();
    expect(desk().notice).toBe('It has no sound.');
    server.answer = new ApiError('FILE_EMPTY', 'The file is empty.');
    await bring();
    expect(desk().notice).toBe('The file is empty.');
    server.answer = new TypeError('torn');
    await bring();
    expect(desk().notice).toContain('couldn’t be imported');
    await bring('any', AbortSignal.abort());
    expect(desk().notice).toContain('Cancelled import');
    expect([desk().piece!.music, desk().piece!.layers]).toEqual([null, []]);
  });
});
