import { Box, Flex, Input, Skeleton, Span } from '@chakra-ui/react';
import { keepPreviousData, useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { Copy, FolderOpen, Moon, Pencil, Plus, Search, Sun, Trash2 } from 'lucide-react';
import { Suspense, lazy, useDeferredValue, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { frameRateLabel } from '@core/time';
import { useTheme } from '../../app/use-theme';
import { api, call, upload, saidBy } from '../../platform/api';
import { onNews } from '../../platform/news';
import { hasWork } from '../../saving/browser-store';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { FileButton } from '../../ui/FilePick';
import { NoticePlace } from '../../ui/NoticePlace';
import type { Notice } from '../../ui/Notices';
import { useContextMenu } from '../../ui/use-context-menu';
import { FirstPieceCard } from '../guide/FirstPieceCard';
import { Empty } from '../../ui/Empty';
import { NameField } from '../../ui/NameField';
import { WORDS } from './words';

// What needs the document's schema comes when it is needed: the list itself is there at once.
const NewPieceDialog = lazy(() => import('./NewPieceDialog'));
const startFirstPiece = async () => (await import('../guide/start')).startFirstPiece();
const sendWaiting = async () => ((await hasWork()) ? (await import('../../saving/browser-session')).sendWaiting() : []);

const ORDERS = { changed: WORDS.lastChange, name: WORDS.name, length: WORDS.length } as const;
type Order = keyof typeof ORDERS;
const FRAMES = 12;

/** Cards fetched at once. */
const PAGE = 48;

const loadPieces = (search: string, order: Order, offset: number) =>
  call(api.pieces.$get({ query: { search, order, offset: String(offset), limit: String(PAGE) } }));
type Summary = Awaited<ReturnType<typeof loadPieces>>['pieces'][number];
type Waiting = Awaited<ReturnType<typeof sendWaiting>>;

/** The piece as a moving picture over a thin strip of its own beat lattice. */
function MovingPicture({ piece, onOpen }: { piece: Summary; onOpen: () => void }) {
  const [frame, setFrame] = useState(0);
  const [isMoving, setMoving] = useState(false);
  useEffect(() => {
    if (!isMoving) return;
    const timer = setInterval(() => setFrame((f) => (f + 1) % FRAMES), 220);
    return () => clearInterval(timer);
  }, [isMoving]);
  return (
    <>
      <Button
        variant="bare"
        className="card-picture"
        onClick={onOpen}
        onPointerEnter={() => setMoving(true)}
        onPointerLeave={() => setMoving(false)}
        aria-label={WORDS.open(piece.name)}
      >
        <img src={`/api/pieces/${piece.id}/frame/${isMoving ? frame : 'poster'}?r=${piece.revision}`} alt="" />
      </Button>
      <svg
        viewBox="0 0 1000 14"
        preserveAspectRatio="none"
        width="100%"
        height="14"
        aria-hidden="true"
        className="card-beats"
      >
        {piece.beats.map((t, i) => (
          <line
            key={i}
            x1={(Math.abs(t) / piece.duration) * 1000}
            x2={(Math.abs(t) / piece.duration) * 1000}
            y1={t > 0 || Object.is(t, 0) ? 2 : 7}
            y2="14"
            stroke={t > 0 || Object.is(t, 0) ? 'var(--lamp)' : 'var(--muted)'}
            strokeWidth={t > 0 ? 2.4 : 1.2}
            opacity={t > 0 ? 0.9 : 0.6}
          />
        ))}
        {isMoving && <rect x={((frame + 0.5) / FRAMES) * 1000 - 2} y="0" width="4" height="14" fill="var(--lamp)" />}
      </svg>
    </>
  );
}

function ago(iso: string): string {
  const s = (Date.now() - new Date(iso).getTime()) / 1000;
  if (s < 90) return WORDS.aMomentAgo;
  if (s < 5400) return WORDS.minAgo(Math.round(s / 60));
  if (s < 129600) return WORDS.hAgo(Math.round(s / 3600));
  return WORDS.daysAgo(Math.round(s / 86400));
}

export function HomePage() {
  const [theme, toggleTheme] = useTheme();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [search, setSearch] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const wanted = useDeferredValue(search.trim());
  const { data, error, isPending, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['pieces', wanted, order],
    queryFn: ({ pageParam }) => loadPieces(wanted, order, pageParam),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => (pages.length * PAGE < last.total ? pages.length * PAGE : undefined),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  });
  const shown = data?.pages.flatMap((page) => page.pieces) ?? [];
  const total = data?.pages[0]?.total ?? 0;
  const [waiting, setWaiting] = useState<Waiting>([]);
  const [isMaking, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [notice, setNotice] = useState<Notice | null>(null);
  const refresh = () => queries.invalidateQueries({ queryKey: ['pieces'] });

  useEffect(() => {
    const ask = () => void queries.invalidateQueries({ queryKey: ['pieces'] });
    return onNews((news) => news.topic === 'piece' && ask(), ask);
  }, [queries]);
  // What closed tabs left behind is sent from here.
  useEffect(() => void sendWaiting().then(setWaiting, () => {}), []);

  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (e) {
      setNotice({ text: saidBy(e, WORDS.thatDidNotWork) });
    }
  };
  const openFile = (file: File) =>
    attempt(async () => {
      setNotice({ text: WORDS.opening(file.name) });
      const made = await upload<{ id: string }>('/api/pieces/import', file, () => {});
      await navigate(`/piece/${made.id}`);
    });
  const guideMe = () => attempt(async () => navigate(`/piece/${await startFirstPiece()}`));
  const remove = (piece: Summary) =>
    attempt(async () => {
      await call(api.pieces[':id'].$delete({ param: { id: piece.id } }));
      await refresh();
      setNotice({
        text: WORDS.wasDeleted(piece.name),
        undo: () =>
          void attempt(async () => {
            await call(api.pieces[':id'].undelete.$post({ param: { id: piece.id } }));
            setNotice(null);
            await refresh();
          }),
      });
    });

  const duplicate = (piece: Summary) =>
    attempt(async () => {
      await call(api.pieces[':id'].duplicate.$post({ param: { id: piece.id } }));
      await refresh();
    });
  const [contextMenu, onContextMenu] = useContextMenu((target) => {
    const id = target.closest<HTMLElement>('[data-piece]')?.dataset.piece;
    const piece = shown.find((other) => other.id === id);
    if (!piece) return null;
    return {
      label: piece.name,
      groups: [
        [{ label: WORDS.open2, run: () => void navigate(`/piece/${piece.id}`) }],
        [
          { label: WORDS.rename, run: () => setRenaming(piece.id) },
          { label: WORDS.duplicate, run: () => void duplicate(piece) },
          { label: WORDS.keepAsAFile, run: () => window.location.assign(`/api/pieces/${piece.id}/file`) },
        ],
        [{ label: WORDS.delete, run: () => void remove(piece) }],
      ],
    };
  });

  return (
    <main className="home">
      <Box as="header" display="flex" alignItems="center" gap="14px" marginBottom="30px">
        <img src="/mark.svg" alt="" width="34" height="34" />
        <Box as="h1" fontSize="22px" fontWeight="600" margin="0" flex="1">
          {WORDS.pieces}
        </Box>
        <label className="search">
          <Search size={15} aria-hidden="true" />
          <Input
            aria-label={WORDS.searchPieces}
            placeholder={WORDS.search}
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        </label>
        <Choice aria-label={WORDS.sortBy} value={order} onChange={(e) => setOrder(e.target.value as Order)}>
          {Object.entries(ORDERS).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
        <Button
          variant="quiet"
          onClick={toggleTheme}
          aria-label={theme === 'dark' ? WORDS.useTheLightVariant : WORDS.useTheDarkVariant}
        >
          {theme === 'dark' ? <Sun size={17} /> : <Moon size={17} />}
        </Button>
        <FileButton
          label={WORDS.pieceFile}
          accept=".estrella,application/zip"
          onFiles={([file]) => file && void openFile(file)}
        >
          <Button variant="soft">
            <FolderOpen size={16} />
            {WORDS.openAFile}
          </Button>
        </FileButton>
        <Button variant="lamp" onClick={() => setMaking(true)}>
          <Plus size={17} />
          {WORDS.newPiece2}
        </Button>
      </Box>

      {error && (
        <Box as="p" role="alert" color="ember">
          {saidBy(error, WORDS.thePiecesCouldNot)}
          {WORDS.theyAreShownAs}
        </Box>
      )}
      {isPending && !error && <Coming />}
      {waiting.length > 0 && (
        <p role="status">
          {WORDS.editsThatCouldNot}{' '}
          {waiting.map((work) => (
            <Link key={`${work.pieceId}/${work.tabId}`} to={`/piece/${work.pieceId}`}>
              {work.piece.name}
            </Link>
          ))}
          {WORDS.openThePieceTo}
        </p>
      )}
      {data && total === 0 && wanted === '' && (
        <Empty title={WORDS.noPiecesYet} marginBottom="18px">
          {WORDS.nothingHereYetMake}
        </Empty>
      )}
      {data && total === 0 && wanted !== '' && (
        <Empty
          title={WORDS.noPieceMatches(search)}
          action={
            <Button variant="soft" onClick={() => setSearch('')}>
              {WORDS.showAllPieces}
            </Button>
          }
        />
      )}

      {contextMenu}
      <section className="cards" aria-label={WORDS.allPieces} onContextMenu={onContextMenu}>
        {shown.map((piece) => (
          <article key={piece.id} className="fade" aria-label={piece.name} data-piece={piece.id}>
            <MovingPicture piece={piece} onOpen={() => void navigate(`/piece/${piece.id}`)} />
            <Flex alignItems="center" gap="4px" paddingTop="8px">
              {renaming === piece.id ? (
                <NameField
                  label={WORDS.nameOfThePiece}
                  name={piece.name}
                  onDone={(name) => {
                    setRenaming(null);
                    if (name)
                      void attempt(async () => {
                        await call(api.pieces[':id'].rename.$post({ param: { id: piece.id }, json: { name } }));
                        await refresh();
                      });
                  }}
                />
              ) : (
                <Link className="piece-name" to={`/piece/${piece.id}`}>
                  {piece.name}
                </Link>
              )}
              <Button variant="quiet" aria-label={WORDS.renameName(piece.name)} onClick={() => setRenaming(piece.id)}>
                <Pencil size={15} />
              </Button>
              <Button
                variant="quiet"
                aria-label={WORDS.duplicateName(piece.name)}
                onClick={() => void duplicate(piece)}
              >
                <Copy size={15} />
              </Button>
              <Button variant="quiet" aria-label={WORDS.deleteName(piece.name)} onClick={() => void remove(piece)}>
                <Trash2 size={15} />
              </Button>
            </Flex>
            <Flex className="muted" gap="10px" fontSize="12.5px">
              <span>{piece.formats.map((f) => f.name).join(', ')}</span>
              <span className="mono">{piece.duration.toFixed(1)} s</span>
              <span className="mono">{WORDS.fps(frameRateLabel(piece.frameRate))}</span>
              <Span marginLeft="auto">{ago(piece.updatedAt)}</Span>
            </Flex>
          </article>
        ))}
        {data && wanted === '' && !hasNextPage && <FirstPieceCard onStart={() => void guideMe()} />}
      </section>
      {hasNextPage && (
        <Button variant="soft" mt="6" loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          {WORDS.showMoreLeft(total - shown.length)}
        </Button>
      )}

      {isMaking && (
        <Suspense>
          <NewPieceDialog
            onMade={(id, withTemplate) => void navigate(`/piece/${id}`, { state: { withTemplate } })}
            onClose={() => setMaking(false)}
          />
        </Suspense>
      )}
      <NoticePlace notice={notice} onClose={() => setNotice(null)} />
    </main>
  );
}

/** Places of the pieces while they are fetched. */
function Coming() {
  return (
    <section className="cards" role="status" aria-label={WORDS.fetchingYourPieces}>
      {[0, 1, 2].map((place) => (
        <Skeleton key={place} aspectRatio="16 / 9" />
      ))}
    </section>
  );
}
