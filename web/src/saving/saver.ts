import { saveName } from '@core/piece';
import type { History, Patches, Piece } from '@core/piece';
import type { Clock } from './clock';
import type { Journal, Trail } from './journal';
import type { LocalWork } from './local-work';
import { WORDS } from './words';

/**
 * Saving one piece from one tab. Every change is first put into the browser's own storage, then sent: soon after the
 * last change, at the latest two seconds after the first one that waits. One save is on its way at a time. Each has a
 * name that the server remembers, so that a save whose answer was lost is known as our own when the next one comes.
 * What the server doesn't answer is sent again; what it refuses is told as what it is, and not sent again until it has
 * changed.
 */
export const SEND_AFTER_MS = 700;
export const LONGEST_WAIT_MS = 2000;
export const FIRST_RETRY_MS = 2500;
export const LONGEST_RETRY_MS = 20_000;

/** Visits whose saves are still known as our own. */
const MOST_FOLLOWED = 8;

export interface SaveRequest {
  readonly piece: Piece;
  readonly baseRevision: number;
  readonly label: string;
  readonly saveId: string;
  /** What this writer's work follows. */
  readonly follows: readonly string[];
}

export type SaveAnswer =
  | { readonly kind: 'saved'; readonly revision: number }
  /** Somebody else has saved since. */
  | { readonly kind: 'conflict'; readonly message: string }
  /** The server will never take this document. */
  | { readonly kind: 'refused'; readonly message: string }
  /** The piece is no longer there. */
  | { readonly kind: 'gone'; readonly message: string }
  /** No answer, an unreadable one, or "not now": the save may have arrived or not. */
  | { readonly kind: 'lost'; readonly message: string; readonly isDiskFull?: boolean };

export type SaveState = 'saved' | 'unsaved' | 'saving' | 'away' | 'full' | 'refused' | 'gone' | 'conflict';

export interface SaveReport {
  readonly state: SaveState;
  readonly message: string | null;
  /** The server's revision the document stands on. */
  readonly revision: number;
}

export interface SaverParts {
  readonly clock: Clock;
  /** Sends a save. What it throws counts as a lost answer. */
  readonly send: (request: SaveRequest, isLeaving: boolean) => Promise<SaveAnswer>;
  /** Keeps work in the browser. May reject. */
  readonly keep: Journal['write'];
  /** Names this visit; never used before. */
  readonly writer: string;
  /** Milliseconds since 1970, to tell a person when work was left. */
  readonly date: () => number;
  readonly report: (report: SaveReport) => void;
  readonly tabId: string;
}

export interface OpenedPiece {
  readonly piece: Piece;
  readonly history: History;
  readonly revision: number;
  readonly unsent: boolean;
  readonly follows: readonly string[];
  readonly conflict: string | null;
}

export interface Saver {
  readonly pieceId: string;
  /** The document has changed. @param change - how, if that is known. */
  changed(piece: Piece, history: History, change?: Trail | null): void;
  /** Sends now what is not sent; resolves when it has been, or when it cannot be. */
  flush(): Promise<void>;
  /** The page goes away, perhaps for good: one last try, and everything into storage. */
  leave(): void;
  /** Ends a conflict: the document now stands on this revision, and replaces it. */
  standOn(revision: number): void;
  /** Ends all activity; what was kept stays kept. Resolves when nothing is on its way any more. */
  retire(): Promise<void>;
  readonly hasUnsent: () => boolean;
}

const KEEPS_NOTHING = WORDS.thisBrowserKeepsNo;

export function createSaver(opened: OpenedPiece, parts: SaverParts): Saver {
  const { clock } = parts;
  let { piece, history, revision } = opened;
  /** What the server is known to have; null if that is not this document. */
  let sent: Piece | null = opened.unsent || opened.conflict !== null ? null : piece;
  /** Number of the last save that was begun. */
  let number = 0;
  let blocked: 'conflict' | 'gone' | null = opened.conflict !== null ? 'conflict' : null;
  let refused: Piece | null = null;
  let attempt: { readonly piece: Piece; readonly saveId: string } | null = null;
  let waitingSince: number | null = null;
  let failures = 0;
  let callOff: (() => void) | null = null;
  let isRetired = false;
  let isKeepingFailed = false;
  let inFlight: Promise<void> | null = null;
  let keeping: Promise<void> | null = null;
  let keepAgain = false;
  /** How the document came of the one that was kept last; null if that is not known. */
  let trail: { from: Piece; patches: Patches[number][] } | null = { from: piece, patches: [] };
  let shown: SaveReport = { state: blocked ?? (sent ? 'saved' : 'unsaved'), message: opened.conflict, revision };

  const report = (state: SaveState, message: string | null) => {
    shown = { state, message: message ?? (isKeepingFailed ? KEEPS_NOTHING : null), revision };
    if (!isRetired) parts.report(shown);
  };

  const follows = (): readonly string[] => [...opened.follows, saveName(parts.writer, number)].slice(-MOST_FOLLOWED);
  const work = (): LocalWork => ({
    pieceId: piece.id,
    tabId: parts.tabId,
    piece,
    baseRevision: revision,
    unsent: piece !== sent,
    follows: follows(),
    label: labelOf(history),
    history,
    at: parts.date(),
  });

  /**
   * Writes the newest work; while one writing is under way, only the newest of what comes meanwhile is written after
   * it.
   */
  const keep = (): Promise<void> => {
    if (keeping) {
      keepAgain = true;
      return keeping;
    }
    keeping = (async () => {
      do {
        keepAgain = false;
        try {
          const since = trail;
          trail = { from: piece, patches: [] };
          await parts.keep(work(), since);
          isKeepingFailed = false;
        } catch {
          if (!isKeepingFailed) {
            isKeepingFailed = true;
            report(shown.state, shown.message);
          }
        }
      } while (keepAgain);
      keeping = null;
    })();
    return keeping;
  };

  const plan = (milliseconds: number) => {
    callOff?.();
    callOff = isRetired
      ? null
      : clock.after(milliseconds, () => {
          callOff = null;
          void flush();
        });
  };

  const planSending = () => {
    waitingSince ??= clock.now();
    plan(Math.max(0, Math.min(SEND_AFTER_MS, waitingSince + LONGEST_WAIT_MS - clock.now())));
  };

  const wants = () => piece !== sent && piece !== refused && blocked === null;

  const take = (answer: SaveAnswer, request: SaveRequest) => {
    switch (answer.kind) {
      case 'saved':
        revision = answer.revision;
        sent = request.piece;
        attempt = null;
        failures = 0;
        refused = null;
        waitingSince = piece === sent ? null : clock.now();
        report(piece === sent ? 'saved' : 'unsaved', null);
        break;
      case 'conflict':
      case 'gone':
        blocked = answer.kind;
        report(answer.kind, answer.message);
        break;
      case 'refused':
        refused = request.piece;
        report(piece === refused ? 'refused' : 'unsaved', piece === refused ? answer.message : null);
        break;
      case 'lost':
        failures++;
        report(answer.isDiskFull ? 'full' : 'away', answer.message);
        break;
    }
    return answer.kind;
  };

  /**
   * The request for the document as it is. The same document, sent again because its answer was lost, keeps its name.
   */
  const begin = (): SaveRequest => {
    if (attempt?.piece !== piece) attempt = { piece, saveId: saveName(parts.writer, ++number) };
    return { piece, baseRevision: revision, label: labelOf(history), saveId: attempt.saveId, follows: opened.follows };
  };

  const sendOnce = async (isLeaving: boolean): Promise<void> => {
    const request = begin();
    report('saving', null);
    let answer: SaveAnswer;
    try {
      answer = await parts.send(request, isLeaving);
    } catch {
      answer = { kind: 'lost', message: WORDS.theServerDoesNot };
    }
    const kind = take(answer, request);
    await keep();
    if (kind === 'lost') plan(Math.min(LONGEST_RETRY_MS, FIRST_RETRY_MS * 2 ** (failures - 1)));
    else if (wants()) planSending();
  };

  const flush = async (isLeaving = false): Promise<void> => {
    callOff?.();
    callOff = null;
    // A save on its way carries an older document: the newest goes after it.
    while (inFlight) await inFlight;
    if (!wants() || isRetired) return;
    inFlight = sendOnce(isLeaving).finally(() => {
      inFlight = null;
    });
    await inFlight;
  };

  if (opened.unsent && blocked === null) plan(0);
  parts.report(shown);
  return {
    pieceId: opened.piece.id,
    changed(nextPiece, nextHistory, change = null) {
      const isChange = nextPiece !== piece;
      if (isChange) {
        if (change?.from === piece) trail?.patches.push(...change.patches);
        else trail = null;
      }
      [piece, history] = [nextPiece, nextHistory];
      void keep();
      if (!isChange || blocked !== null) return;
      if (piece === sent) {
        waitingSince = null;
        report('saved', null);
        return;
      }
      // While the server is away its own waits count, not those of typing.
      if (failures > 0) return;
      report('unsaved', null);
      planSending();
    },
    flush: () => flush(),
    leave() {
      if (wants() && !inFlight) void flush(true);
      // A save on its way carries an older document: the newest goes beside it, and the server takes both in whichever
      // order they come.
      else if (wants() && attempt?.piece !== piece) void parts.send(begin(), true).catch(() => {});
      void keep();
    },
    standOn(next) {
      blocked = null;
      sent = null;
      attempt = null;
      revision = next;
      report('unsaved', null);
      plan(0);
    },
    async retire() {
      callOff?.();
      callOff = null;
      isRetired = true;
      while (inFlight) await inFlight;
      await keeping;
    },
    hasUnsent: () => piece !== sent,
  };
}

const labelOf = (history: History): string => history.done[history.done.length - 1]?.label ?? WORDS.edit;
