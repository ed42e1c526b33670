import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { EMPTY_HISTORY, createLayer } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../../../tests/helpers/documents';
import { playhead } from '../platform/clock';
import { closePiece, openPiece, setView, useDesk } from './desk-store';
import { rememberView } from './view-memory';

const ids = countingIds('view');
const lamp = createLayer('ellipse', { name: 'Lamp', start: freeMoment(2), end: freeMoment(8) }, ids);
const piece: Piece = { ...newPiece('Remembered'), end: freeMoment(8), layers: [lamp] };

/** A storage that a test can look into, or that refuses everything. */
const storage = new Map<string, string>();
let isShut = false;
const refuse = (): never => {
  throw new DOMException('closed', 'SecurityError');
};
const browser = {
  localStorage: {
    getItem: (key: string) => (isShut ? refuse() : (storage.get(key) ?? null)),
    setItem: (key: string, value: string) => (isShut ? refuse() : void storage.set(key, value)),
  },
  window: { addEventListener: () => {}, removeEventListener: () => {} },
};

/** Opens the piece, does something, and leaves it. */
function visit(one: Piece, act: () => void = () => {}): void {
  playhead.set(0);
  const leave = rememberView(one.id);
  openPiece(one, 1, EMPTY_HISTORY);
  act();
  leave();
  closePiece();
}
const seen = () => {
  const { rung, panelTabs, selectedLayers } = useDesk.getState();
  return { rung, panelTabs, selectedLayers, seconds: playhead.seconds };
};

describe('the view of a piece', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    storage.clear();
    isShut = false;
    Object.assign(globalThis, browser);
  });
  afterEach(() => {
    closePiece();
    jest.useRealTimers();
    for (const name of Object.keys(browser)) Reflect.deleteProperty(globalThis, name);
  });

  it('is what it was left as, as soon as the piece is there', () => {
    visit(piece, () => {
      setView({ rung: 'motion', panelTabs: { motion: 'keyframes' }, selectedLayers: [lamp.id] });
      playhead.set(5);
    });
    visit(piece, () =>
      expect(seen()).toEqual({
        rung: 'motion',
        panelTabs: { motion: 'keyframes' },
        selectedLayers: [lamp.id],
        seconds: 5,
      }),
    );
  });
  it('of a piece that was never open begins at a frame that shows something', () => {
    visit(piece, () => expect(seen()).toMatchObject({ rung: 'music', seconds: 3 }));
  });
  it('forgets layers that are gone, and stays within the piece', () => {
    visit(piece, () => {
      setView({ selectedLayers: [lamp.id] });
      playhead.set(7);
    });
    visit({ ...piece, layers: [], end: freeMoment(4) }, () =>
      expect(seen()).toMatchObject({ selectedLayers: [], seconds: 4 }),
    );
  });
  it('is saved while it changes, without waiting for the end of the visit', () => {
    const leave = rememberView(piece.id);
    openPiece(piece, 1, EMPTY_HISTORY);
    setView({ rung: 'colour' });
    jest.advanceTimersByTime(2000);
    expect(storage.get('estrella-views')).toContain('colour');
    leave();
  });
  it('holds no more pieces than sixty, and what is no view is passed over', () => {
    storage.set('estrella-views', '{"not": "a list"}');
    for (let i = 0; i < 65; i++) visit({ ...piece, id: `piece-${i}` }, () => setView({ rung: 'sound' }));
    const kept = JSON.parse(storage.get('estrella-views')!) as [string, unknown][];
    expect(kept).toHaveLength(60);
    expect(kept[59]![0]).toBe('piece-64');
  });
  it('is not needed: without storage the piece opens all the same', () => {
    isShut = true;
    visit(piece, () => setView({ rung: 'words' }));
    visit(piece, () => expect(seen().rung).toBe('music'));
  });
});
