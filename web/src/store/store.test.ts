import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, createMusic } from '@core/piece';
import type { Edit } from '@core/piece';
import { SONG_HASH, pieceWithSong, steadyAnalysis } from '../../../tests/helpers/documents';
import { createFakeClock } from '../../../tests/helpers/fake-clock';
import { createBursts } from './bursts';
import { closePiece, edit, openPiece, replaceDocument, setAnalysis, undoEdit, useDesk } from './desk-store';
import { followSong } from './follow-song';

const desk = () => useDesk.getState();
const first = steadyAnalysis(120, 0.5, 60);
const second = steadyAnalysis(97, 1.2, 50, 3);
const OTHER = 'b'.repeat(64);
const other = { id: 'other', hash: OTHER, kind: 'audio' as const, name: 'other.wav', duration: 40 };

beforeEach(() => {
  setAnalysis(SONG_HASH, null);
  setAnalysis(OTHER, null);
  openPiece(pieceWithSong().piece, 1, EMPTY_HISTORY, first);
});

describe('bursts', () => {
  let now = 0;
  let isHeld = false;
  const fill = (value: string, layerId = 'a'): Edit[] => [{ type: 'value.set', layerId, property: 'fill', value }];
  const make = () => createBursts({ now: () => now, isHeld: () => isHeld });
  it('join the ticks of one picker, and nothing else of the same name', () => {
    const ids = make();
    now = 0;
    const one = ids('Fill-picker', fill('#111111'));
    now = 400;
    expect(ids('Fill-picker', fill('#222222'))).toBe(one);
    // The same field of another layer, of another property, or a minute later is another thought.
    expect(ids('Fill-picker', fill('#222222', 'b'))).not.toBe(one);
    const again = ids('Fill-picker', fill('#333333'));
    expect(again).not.toBe(one);
    now = 60_000;
    expect(ids('Fill-picker', fill('#444444'))).not.toBe(again);
    expect(ids('Stroke-picker', fill('#444444'))).not.toBe(ids('Fill-picker', fill('#444444')));
  });
  it('keep a drag together however slow it is and however many layers it moves', () => {
    const ids = make();
    isHeld = true;
    now = 0;
    const one = ids('drag', fill('#111111', 'a'));
    now = 30_000;
    expect(ids('drag', fill('#222222', 'b'))).toBe(one);
    isHeld = false;
  });
  it('an edit without a name stands alone, and parts what comes before and after it', () => {
    const ids = make();
    now = 0;
    const one = ids('x', fill('#111111'));
    expect(ids(null, fill('#222222'))).toBeNull();
    expect(ids('x', fill('#333333'))).not.toBe(one);
  });
});

describe('the desk', () => {
  it('undoing a change of song brings its beats back with it', () => {
    const before = desk().times!.grid.beats;
    setAnalysis(OTHER, second);
    edit([
      { type: 'media.add', media: other },
      { type: 'music.set', music: createMusic(other) },
    ]);
    expect(desk().analysis).toBe(second);
    undoEdit();
    expect(desk().analysis).toBe(first);
    expect(desk().times!.grid.beats).toEqual(before);
  });
  it('tells what a document cannot hold, and changes nothing', () => {
    const { piece } = desk();
    expect(edit([{ type: 'piece.rename', name: '' }])).toBe(false);
    expect(desk().piece).toBe(piece);
    expect(desk().notice).toContain('Not applied');
  });
  it('another document in its place is a step like any other', () => {
    const { piece } = desk();
    replaceDocument({ ...piece!, name: 'Earlier' }, 'Bring back revision 2');
    expect(desk().piece!.name).toBe('Earlier');
    expect(desk().history.done[0]!.label).toBe('Bring back revision 2');
    undoEdit();
    expect(desk().piece).toEqual(piece);
  });
});

describe('following the song', () => {
  it('asks for what was found in it, again while there is nothing yet, and stops when it is left', async () => {
    const clock = createFakeClock();
    setAnalysis(SONG_HASH, null);
    let asked = 0;
    const stop = followSong(async () => {
      if (++asked < 3) throw new Error('not yet');
      return first;
    }, clock);
    await clock.advance(0);
    expect([asked, desk().analysis]).toEqual([1, null]);
    await clock.advance(3000);
    expect([asked, desk().analysis]).toEqual([3, first]);
    stop();
    expect(clock.waiting()).toBe(0);
  });
  it('turns to another song as soon as it is the piece’s, and shows no late answer of the old one', async () => {
    const clock = createFakeClock();
    setAnalysis(SONG_HASH, null);
    const answers = new Map<string, (a: typeof first) => void>();
    const stop = followSong(({ hash }) => new Promise((resolve) => answers.set(hash, resolve)), clock);
    edit([
      { type: 'media.add', media: other },
      { type: 'music.set', music: createMusic(other) },
    ]);
    await clock.settle();
    answers.get(SONG_HASH)!(first);
    await clock.settle();
    expect(desk().analysis).toBeNull();
    answers.get(OTHER)!(second);
    await clock.settle();
    expect(desk().analysis).toBe(second);
    closePiece();
    stop();
  });
});
