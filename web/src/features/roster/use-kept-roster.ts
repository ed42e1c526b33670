import { useCallback, useEffect, useRef, useState } from 'react';
import type { Roster } from '@core/roster';
import { ApiError, saidBy } from '../../platform/api';
import { readRoster, writeRoster } from './roster-store';
import { WORDS } from './words';

/** What is typed is kept once it rests. */
const REST_MS = 400;
/** While the server is away it is tried again so often. */
const AGAIN_MS = 3000;
/** Steps back. */
const MOST_STEPS = 200;

interface History {
  readonly past: readonly Roster[];
  readonly now: Roster;
  readonly future: readonly Roster[];
}

/**
 * The roster of a group, with steps back and forward, kept on the server as it is changed. What another tab has made of it
 * meanwhile is shown and told; one step back is what stood here.
 * @param initial - what it is while there is none.
 */
export function useKeptRoster(pieceId: string, groupId: string, initial: Roster) {
  const [history, setHistory] = useState<History>({ past: [], now: initial, future: [] });
  const [revision, setRevision] = useState(0);
  const [told, setTold] = useState<string | null>(null);
  const state = useRef({
    history,
    kept: initial as Roster | null,
    revision: 0,
    burst: null as string | null,
    saving: null as Promise<void> | null,
    isLoaded: false,
  });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const show = useCallback((next: History, burst: string | null = null) => {
    state.current.history = next;
    state.current.burst = burst;
    setHistory(next);
  }, []);
  const goTo = useCallback(
    (roster: Roster, burst: string | null = null) => {
      const { past, now } = state.current.history;
      // Letters typed into one cell are one step.
      const isSame = burst !== null && burst === state.current.burst;
      show({ past: isSame ? past : [...past, now].slice(-MOST_STEPS), now: roster, future: [] }, burst);
    },
    [show],
  );
  const setBase = useCallback((next: number, kept: Roster) => {
    state.current.revision = next;
    state.current.kept = kept;
    setRevision(next);
  }, []);

  const keepNow = useCallback(async (): Promise<void> => {
    const own = state.current;
    try {
      while (own.history.now !== own.kept) {
        const sent = own.history.now;
        setBase(await writeRoster(pieceId, groupId, sent, own.revision), sent);
      }
      setTold(null);
    } catch (error) {
      if (error instanceof ApiError && error.code === 'CONFLICT') {
        const theirs = await readRoster(pieceId, groupId).catch(() => null);
        if (theirs) {
          goTo(theirs.roster);
          setBase(theirs.revision, theirs.roster);
          setTold(WORDS.changedElsewhere);
        }
      } else {
        setTold(saidBy(error, WORDS.theServerDoesNotAnswer));
        timer.current = setTimeout(() => void keep.current(), AGAIN_MS);
      }
    }
  }, [pieceId, groupId, goTo, setBase]);
  /** One save at a time; whoever asks meanwhile waits for that one. */
  const keep = useRef((): Promise<void> => Promise.resolve());
  keep.current = () => {
    const own = state.current;
    if (!own.isLoaded) return Promise.resolve();
    own.saving ??= keepNow().finally(() => {
      own.saving = null;
    });
    return own.saving;
  };

  const keepSoon = useCallback(() => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => void keep.current(), REST_MS);
  }, []);

  useEffect(() => {
    let isGone = false;
    let again: ReturnType<typeof setTimeout> | null = null;
    const load = async (): Promise<void> => {
      try {
        const kept = await readRoster(pieceId, groupId);
        if (isGone) return;
        const own = state.current;
        own.isLoaded = true;
        setTold(null);
        if (kept) {
          // What was typed before the answer is one step back.
          if (own.history.now === initial) show({ past: [], now: kept.roster, future: [] });
          else goTo(kept.roster);
          setBase(kept.revision, kept.roster);
          // As a browser kept it once: it is taken over.
          if (kept.revision === 0) own.kept = null;
        }
        if (own.history.now !== own.kept) keepSoon();
      } catch (error) {
        if (isGone) return;
        setTold(saidBy(error, WORDS.theServerDoesNotAnswer));
        again = setTimeout(() => void load(), AGAIN_MS);
      }
    };
    void load();
    return () => {
      isGone = true;
      if (again) clearTimeout(again);
      if (timer.current) clearTimeout(timer.current);
      void keep.current(); // what has not rested yet
    };
    // The first roster counts, not how it is called in a later render.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [pieceId, groupId]);

  const change = useCallback(
    /** @param burst - changes of the same name in a row are one step. */
    (next: Roster, burst: string | null = null) => {
      goTo(next, burst);
      keepSoon();
    },
    [goTo, keepSoon],
  );
  const step = (isBack: boolean) => {
    const { past, now, future } = state.current.history;
    const next = isBack ? past.at(-1) : future[0];
    if (!next) return;
    show(
      isBack
        ? { past: past.slice(0, -1), now: next, future: [now, ...future] }
        : { past: [...past, now], now: next, future: future.slice(1) },
    );
    keepSoon();
  };
  return {
    roster: history.now,
    change,
    /** Its revision on the server once everything is kept; null if it could not be. */
    kept: async (): Promise<number | null> => {
      if (timer.current) clearTimeout(timer.current);
      const own = state.current;
      // A roster that was never changed is kept when it is first needed.
      if (own.revision === 0 && own.history.now === own.kept) own.kept = null;
      await keep.current();
      // What came in while an earlier save was on its way.
      if (own.history.now !== own.kept) await keep.current();
      return own.history.now === own.kept ? own.revision : null;
    },
    revision,
    told,
    undo: history.past.length > 0 ? () => step(true) : null,
    redo: history.future.length > 0 ? () => step(false) : null,
  };
}
