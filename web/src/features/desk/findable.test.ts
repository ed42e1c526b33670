import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, createLayer } from '@core/piece';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../../../../tests/helpers/documents';
import { playhead } from '../../platform/clock';
import { closePiece, openPiece, useDesk } from '../../store/desk-store';
import { FIND_QUESTIONS } from './find-questions';
import { createFinder, findables } from './findable';
import { SYNONYMS } from './synonyms';

const ids = countingIds('find');
const lamp = createLayer('ellipse', { name: 'Harbour lamp', start: freeMoment(4), end: freeMoment(8) }, ids);
const piece = {
  ...newPiece('Results'),
  end: freeMoment(10),
  layers: [lamp],
  markers: [{ id: 'm', name: 'The kite lets go', colour: '#54c6c0', at: freeMoment(6.5) }],
};
const found = (asked: string) => createFinder(findables())(asked);
const labels = (asked: string) => found(asked).map(({ kind, label }) => `${kind}: ${label}`);
const run = (asked: string) => {
  const [first] = found(asked);
  first?.run();
};

describe('find anything', () => {
  beforeEach(() => {
    closePiece();
    openPiece(piece, 1, EMPTY_HISTORY);
    playhead.set(0);
  });
  it('knows commands with their keys, what can be added, panels, layers and markers', () => {
    expect(labels('undo')[0]).toBe('command: Undo');
    expect(found('undo')[0]!.key).toBe('mod+z');
    expect(labels('rectangle')[0]).toBe('add: Add rectangle');
    expect(labels('run-through')[0]).toBe('panel: Run-through');
    expect(labels('harbour')[0]).toBe('layer: Harbour lamp');
    expect(labels('lets go')[0]).toBe('marker: The kite lets go');
  });
  it('forgives a slip of the fingers, and finds nothing where nothing is meant', () => {
    expect(labels('harbuor lmap')[0]).toBe('layer: Harbour lamp');
    expect(labels('zzzqqq')).toEqual([]);
  });
  it('goes to a layer where it can be seen', () => {
    run('harbour lamp');
    expect(useDesk.getState().selectedLayers).toEqual([lamp.id]);
    expect(playhead.seconds).toBeCloseTo(6, 6);
    playhead.set(5);
    run('harbour lamp');
    expect(playhead.seconds).toBe(5);
  });
  it('goes to a marker, opens a panel, adds a layer', () => {
    run('kite lets go');
    expect(playhead.seconds).toBeCloseTo(6.5, 6);
    run('colour');
    expect(useDesk.getState().rung).toBe('colour');
    run('add ellipse');
    expect(useDesk.getState().piece!.layers).toHaveLength(2);
  });
  it('leaves out what is only struck in time', () => {
    expect(labels('tap the beat').some((label) => label.startsWith('command: Tap'))).toBe(false);
  });
  it('answers what people ask for with the right thing first, 95 times of 100 or more', () => {
    expect(FIND_QUESTIONS.length).toBeGreaterThanOrEqual(120);
    const wrong = FIND_QUESTIONS.flatMap(([asked, ...wanted]) => {
      const [first] = found(asked);
      return first && wanted.includes(first.id) ? [] : [`${asked}: ${first?.id ?? 'nothing'}`];
    });
    expect(wrong.slice(0, Math.floor(FIND_QUESTIONS.length * 0.05))).toEqual(wrong);
  });
  it('has other words for things that are there only, and each once', () => {
    const ids = new Set(findables().map(({ id }) => id));
    expect(Object.keys(SYNONYMS).filter((id) => !ids.has(id))).toEqual([]);
    const words = Object.values(SYNONYMS).flat();
    expect(words.filter((word, i) => words.indexOf(word) !== i)).toEqual([]);
  });
});
