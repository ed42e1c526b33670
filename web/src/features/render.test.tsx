import { ChakraProvider } from '@chakra-ui/react';
import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderToStaticMarkup } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { EMPTY_HISTORY, LAYER_KIND_IDS, createLayer } from '@core/piece';
import type { Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { SONG_HASH, countingIds, newPiece, pieceWithSong, pin, steadyAnalysis } from '../../../tests/helpers/documents';
import { system } from '../app/theme';

// Rendering to a string asks stores for their first state (React's server snapshot); here they are to show the present
// one.
jest.unstable_mockModule('zustand', async () => {
  const { createStore } = await import('zustand/vanilla');
  const create = (init: () => unknown) => {
    const store = createStore(init);
    return Object.assign((select: (state: unknown) => unknown = (state) => state) => select(store.getState()), store);
  };
  return { create };
});
const { RUNGS, closePiece, openPiece, setAnalysis, setView } = await import('../store/desk-store');
const { Desk } = await import('./desk/Desk');
const { DeskBoundary, WaysOut } = await import('./desk/DeskBoundary');
const { HomePage } = await import('./home/HomePage');
const { NewPieceForm } = await import('./home/NewPieceForm');

/**
 * Every panel, drawn as it first stands, for pieces with and without what it is about. What it does is for the browser
 * tests; that it can be shown at all is for this one.
 */
const show = (element: React.ReactNode): string =>
  renderToStaticMarkup(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>{element}</MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );

// Charts take their colours from the theme.
Object.assign(globalThis, {
  document: { documentElement: {} },
  getComputedStyle: () => ({ getPropertyValue: () => '#888888' }),
});

const analysis = steadyAnalysis(120, 0.5, 80);
const ids = countingIds('shown');

/** A piece with a layer of every kind, dressed and moving. */
function full(): Piece {
  const { piece } = pieceWithSong();
  const content = {
    text: { text: 'nine days of wind', family: 'syne', phrase: { role: 'phrase', locked: false, emphasis: [1] } },
    path: { d: 'M0 0L10 10Z', box: [10, 10] },
    picture: { mediaId: 'picture' },
    piece: { pieceId: 'other', mediaId: 'picture' },
  };
  const layers = LAYER_KIND_IDS.map((kind) => {
    const layer = createLayer(
      kind,
      {
        name: `A ${kind}`,
        start: pin(1),
        end: pin(9),
        content: (content as Record<string, Record<string, unknown>>)[kind] ?? {},
      },
      ids,
    );
    return {
      ...layer,
      id: kind,
      gestures: [newGestureUse('nova', 'entrance', `${kind}-in`), newGestureUse('pulsar', 'accent', `${kind}-on`)],
    };
  });
  return {
    ...piece,
    layers,
    media: [
      ...piece.media,
      { id: 'picture', hash: 'c'.repeat(64), kind: 'picture', name: 'harbour.png', width: 40, height: 30 },
    ],
  };
}

beforeEach(() => {
  closePiece();
  setAnalysis(SONG_HASH, null);
});

describe('the desk', () => {
  it.each(RUNGS.map((rung) => [rung]))(
    'shows the panel %s for an empty piece, and for a full one whatever is selected',
    (rung) => {
      openPiece(newPiece('Empty'), 1, EMPTY_HISTORY);
      setView({ rung });
      expect(show(<Desk />)).toContain('aria-label="Timeline"');
      const piece = full();
      openPiece(piece, 1, EMPTY_HISTORY, analysis);
      for (const id of [null, ...LAYER_KIND_IDS]) {
        setView({ rung, selectedLayers: id ? [id] : [], openLayers: id ? [id] : [], selectedKeys: [] });
        const html = show(<Desk />);
        expect(html).toContain(piece.name);
        for (const kind of LAYER_KIND_IDS) expect(html).toContain(`A ${kind}`);
      }
    },
  );
  it('follows the frame, names each format, and says how saving stands', () => {
    openPiece(full(), 1, EMPTY_HISTORY, analysis);
    expect(show(<Desk />)).toContain('id="pane-upper"');
    setView({ formatId: 'tall' });
    expect(show(<Desk />)).not.toContain('id="pane-upper"');
    for (const [saveState, words] of [
      ['away', 'Offline, changes saved here'],
      ['refused', 'be saved, undo the last change'],
      ['gone', 'Deleted elsewhere'],
      ['saved', '>Saved<'],
    ] as const) {
      setView({ saveState });
      expect(show(<Desk />)).toContain(words);
    }
  });
  it('in trouble offers ways out that need no desk', () => {
    expect(show(<WaysOut pieceId="x" onTry={() => {}} />)).toContain('Earlier revisions');
    openPiece(full(), 1, EMPTY_HISTORY, analysis);
    expect(
      show(
        <DeskBoundary pieceId="x">
          <p>fine</p>
        </DeskBoundary>,
      ),
    ).toContain('fine');
    expect(DeskBoundary.getDerivedStateFromError('torn').error?.message).toBe('torn');
  });
});

describe('the home', () => {
  it('is shown before its pieces are here, and makes new ones', () => {
    expect(show(<HomePage />)).toContain('Loading your pieces');
    expect(show(<NewPieceForm onMade={() => {}} onCancel={() => {}} />)).toContain('Create');
  });
});
