import { EMPTY_HISTORY } from '@core/piece';
import type { Piece } from '@core/piece';
import { openPiece, setView, useDesk } from '../store/desk-store';
import type { Clock } from './clock';
import { closedWork, sendLeftovers } from './leftovers';
import type { Journal } from './journal';
import type { LocalWork } from './local-work';
import { decideOpening } from './opening';
import type { StoredPiece } from './opening';
import { createSaver } from './saver';
import type { OpenedPiece, Saver, SaverParts } from './saver';
import type { Tab } from './tab';
import { WORDS } from './words';

/** Saving put together with the desk: which piece is opened how, and what becomes of it when it is left. */
export interface SessionParts {
  readonly journal: Journal;
  readonly send: SaverParts['send'];
  readonly tab: () => Promise<Tab>;
  readonly clock: Clock;
  readonly newId: () => string;
  readonly date: () => number;
  /** A piece as the server has it. @throws what `isAway` tells apart. */
  readonly fetch: (id: string) => Promise<StoredPiece>;
  /** Makes a new piece of a document. */
  readonly create: (piece: Piece) => Promise<unknown>;
  /** Whether trying again later can help. */
  readonly isAway: (error: unknown) => boolean;
  /** Whether the piece is not there. */
  readonly isGone: (error: unknown) => boolean;
  /** Calls back when the network is back, and when the page goes away; returns what ends that. */
  readonly onPage: (events: { online: () => void; leave: () => void }) => () => void;
}

export interface Session {
  /**
   * Opens a piece: the server's document, or the edits that this browser still holds. Work of closed tabs that fits
   * neither is put into `leftovers` of the desk. @throws what `fetch` throws if there is nothing to open.
   */
  loadPiece(id: string): Promise<void>;
  /**
   * Keeps the piece on the desk saved until it is left. Returns what to call then; it sends what is unsent, in the
   * background.
   */
  keepSaved(id: string): () => void;
  /** Sends what is unsent now, before an export. */
  saveNow(): Promise<void>;
  /** The three ways out of a conflict. Returns the id of the copy, if one was made. */
  resolveConflict(choice: 'mine' | 'theirs' | 'copy'): Promise<string | null>;
  /** Leftover work of a closed tab: kept as a piece of its own, or let go. */
  settleLeftover(work: LocalWork, choice: 'keep' | 'drop'): Promise<string | null>;
  /** For the home: sends what closed tabs left behind, and lists what cannot be sent. */
  sendWaiting(): Promise<readonly LocalWork[]>;
}

const ALSO_OPEN = WORDS.thisPieceIsOpen;

export function createSession(parts: SessionParts): Session {
  const { journal, newId } = parts;
  /** Savers of this page by piece, also of pieces that were left, until all of theirs is sent. */
  const active = new Map<string, Saver>();
  /** Counts visits: what was asked for in one that is over must not open its piece over the next one's. */
  let visit = 0;
  const current = (): Saver | undefined => active.get(useDesk.getState().piece?.id ?? '');

  /**
   * Ends the saver of a piece that was left a moment ago and may still be sending: what it kept is taken up from there.
   */
  const retire = async (id: string): Promise<void> => {
    const saver = active.get(id);
    active.delete(id);
    await saver?.retire();
  };

  const startSaver = (opened: OpenedPiece, tabId: string): Saver => {
    const { id } = opened.piece;
    const saver = createSaver(opened, {
      clock: parts.clock,
      send: parts.send,
      keep: journal.write,
      writer: newId(),
      date: parts.date,
      tabId,
      report: ({ state, message, revision }) => {
        if (useDesk.getState().piece?.id === id) setView({ saveState: state, saveMessage: message, revision });
      },
    });
    active.set(id, saver);
    return saver;
  };

  const keepAsNew = async (piece: Piece, suffix: string): Promise<string> => {
    const copy = { ...piece, id: newId(), name: `${piece.name} (${suffix})`.slice(0, 200) };
    await parts.create(copy);
    return copy.id;
  };

  return {
    async loadPiece(id) {
      const mine = ++visit;
      const { id: tabId, isAlive } = await parts.tab();
      await retire(id);
      const own = await journal.read(id, tabId);
      const closed = (await closedWork(await journal.of(id), isAlive)).filter((work) => work.tabId !== tabId);
      let stored: StoredPiece | null = null;
      let problem: unknown = null;
      try {
        stored = await parts.fetch(id);
      } catch (error) {
        problem = error;
      }
      if (mine !== visit) return;
      const opening = problem !== null && !parts.isAway(problem) ? null : decideOpening(stored, own, closed);
      if (!opening) throw problem;
      const { opened } = opening;
      openPiece(opened.piece, opened.revision, opened.history);
      setView({ leftovers: opening.leftovers });
      const isUpdated = [own, ...closed].some((work) => work?.hasLostSteps);
      if (isUpdated && opened.history.done.length === 0) setView({ notice: WORDS.undoWent });
      startSaver(opened, tabId);
      try {
        // What was taken up from closed tabs is first kept under this tab's own name.
        await journal.write({
          pieceId: id,
          tabId,
          piece: opened.piece,
          baseRevision: opened.revision,
          unsent: opened.unsent,
          follows: opened.follows,
          label: WORDS.edit,
          history: opened.history,
          at: parts.date(),
        });
        for (const work of opening.absorbed) if (work.unsent) await journal.drop(id, work.tabId);
      } catch {
        // A browser without storage had nothing to take up; a full one keeps what it has.
      }
    },

    keepSaved(id) {
      let leaveLock: (() => void) | null = null;
      let isLeft = false;
      let tellWhenOpen = false;
      void parts.tab().then(async (here) => {
        const { isAlsoOpen, leave } = await here.enter(id);
        if (isLeft) return leave();
        leaveLock = leave;
        if (!isAlsoOpen) return;
        if (useDesk.getState().piece?.id === id) setView({ notice: ALSO_OPEN });
        else tellWhenOpen = true;
      });
      const stopWatching = useDesk.subscribe((state, before) => {
        if (tellWhenOpen && state.piece?.id === id) {
          tellWhenOpen = false;
          setView({ notice: ALSO_OPEN });
        }
        if (
          state.piece?.id === id &&
          before.piece?.id === id &&
          (state.piece !== before.piece || state.history !== before.history)
        )
          active.get(id)?.changed(state.piece, state.history, state.change);
      });
      const stopPage = parts.onPage({
        online: () => void active.get(id)?.flush(),
        leave: () => active.get(id)?.leave(),
      });
      return () => {
        isLeft = true;
        visit++;
        leaveLock?.();
        stopWatching();
        stopPage();
        void active.get(id)?.flush();
      };
    },

    saveNow: async () => current()?.flush(),

    async resolveConflict(choice) {
      const { piece } = useDesk.getState();
      const saver = current();
      if (!piece || !saver) return null;
      if (choice === 'copy') {
        const copy = await keepAsNew(piece, WORDS.myVersion);
        await retire(piece.id);
        await journal.drop(piece.id, (await parts.tab()).id);
        return copy;
      }
      const remote = await parts.fetch(piece.id);
      if (choice === 'mine') {
        saver.standOn(remote.revision);
        await saver.flush();
        return null;
      }
      await retire(piece.id);
      openPiece(remote.piece, remote.revision, EMPTY_HISTORY);
      startSaver(
        {
          piece: remote.piece,
          history: EMPTY_HISTORY,
          revision: remote.revision,
          unsent: false,
          follows: [],
          conflict: null,
        },
        (await parts.tab()).id,
      ).changed(remote.piece, EMPTY_HISTORY);
      return null;
    },

    async settleLeftover(work, choice) {
      const copy = choice === 'keep' ? await keepAsNew(work.piece, WORDS.fromAnEarlierVisit) : null;
      await journal.drop(work.pieceId, work.tabId);
      setView({ leftovers: useDesk.getState().leftovers.filter((other) => other !== work) });
      return copy;
    },

    async sendWaiting() {
      const { isAlive } = await parts.tab();
      const fetchIfThere = (id: string) =>
        parts.fetch(id).catch((error: unknown) => {
          if (parts.isGone(error)) return null;
          throw error;
        });
      return sendLeftovers({ journal, send: parts.send, newId, isAlive, fetch: fetchIfThere });
    },
  };
}
