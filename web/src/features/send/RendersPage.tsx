import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { EXPORT_KINDS } from '@core/formats';
import { api, call } from '../../platform/api';
import { Button } from '../../ui/Button';
import { Empty } from '../../ui/Empty';
import { SortableList, useSortableRow } from '../../ui/SortableList';
import { RenderRow } from './RenderRow';
import { Sending } from './Sending';
import { useAttempt } from './use-attempt';
import { isActive, useRenders } from './use-exports';
import type { RenderJob } from './use-exports';
import { WORDS } from './words';

const titleOf = (job: RenderJob) => (
  <>
    <Link to={`/piece/${job.pieceId ?? ''}`}>{job.pieceName}</Link>{' '}
    <span className="muted">
      {[EXPORT_KINDS[job.exportKind].isFormatless ? '' : job.formatName, EXPORT_KINDS[job.exportKind].label]
        .filter((text) => text !== '')
        .join(', ')}{' '}
    </span>
  </>
);

/** Tells, while the page is open, when a render is over; by the system's own notices where they are allowed. */
function useNoticeWhenDone(jobs: readonly RenderJob[] | undefined): void {
  const before = useRef<ReadonlyMap<string, string>>(new Map());
  useEffect(() => {
    if (!jobs) return;
    for (const job of jobs) {
      const was = before.current.get(job.id);
      if (was === undefined || !isActive(was) || isActive(job.state) || job.state === 'canceled') continue;
      if (typeof Notification !== 'undefined' && Notification.permission === 'granted')
        new Notification(job.state === 'succeeded' ? WORDS.isReady(job.pieceName) : WORDS.hasFailed(job.pieceName));
    }
    before.current = new Map(jobs.map(({ id, state }) => [id, state]));
  }, [jobs]);
}

interface RowProps {
  readonly job: RenderJob;
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>;
  readonly sortable?: ReturnType<typeof useSortableRow>;
}

/** A render with where its file goes. */
function Row({ job, attempt, sortable }: RowProps) {
  const name = `${job.pieceName} ${EXPORT_KINDS[job.exportKind].label}`;
  return (
    <RenderRow job={job} title={titleOf(job)} attempt={attempt} {...(sortable ? { sortable } : {})}>
      {job.pieceId !== null && <Sending job={job} pieceId={job.pieceId} name={name} attempt={attempt} />}
    </RenderRow>
  );
}

function WaitingRow({ job, attempt }: RowProps) {
  return <Row job={job} attempt={attempt} sortable={useSortableRow(job.id, WORDS.moveRender(job.pieceName))} />;
}

const PartTitle = ({ children }: { children: string }) => (
  <Box as="h2" fontWeight="600" padding="20px 0 8px">
    {children}
  </Box>
);

/** The renders of all pieces: in what order they are made, how far they are, and what came of those before. */
export function RendersPage() {
  const { data } = useRenders();
  const { problem, attempt } = useAttempt();
  useNoticeWhenDone(data);
  const running = data?.filter(({ state }) => state === 'running') ?? [];
  const waiting = data?.filter(({ state }) => state === 'queued' || state === 'paused') ?? [];
  const over = data?.filter(({ state }) => !isActive(state)) ?? [];
  const ids = waiting.map(({ id }) => id);
  const move = (id: string, to: number) =>
    attempt(() => {
      const others = ids.filter((one) => one !== id);
      return call(api.jobs[':id'].move.$post({ param: { id }, json: { before: others[to] ?? null } }));
    });
  const all = (jobs: readonly RenderJob[], work: (id: string) => Promise<unknown>) =>
    attempt(() => Promise.all(jobs.map(({ id }) => work(id))));
  const pausable = [...running, ...waiting].filter(({ state }) => state !== 'paused');
  const paused = waiting.filter(({ state }) => state === 'paused');
  const isAsking = typeof Notification !== 'undefined' && Notification.permission === 'default';
  return (
    <Box as="main" maxWidth="860px" margin="0 auto" padding="28px 20px 60px" className="renders">
      <Flex alignItems="center" gap="10px" wrap="wrap">
        <Box as="h1" flex="1" fontSize="22px" fontWeight="600">
          {WORDS.renders}
        </Box>
        <Button asChild variant="quiet">
          <Link to="/">{WORDS.allPieces}</Link>
        </Button>
        {isAsking && (
          <Button variant="quiet" onClick={() => void Notification.requestPermission()}>
            {WORDS.tellMe}
          </Button>
        )}
        {pausable.length > 0 && (
          <Button
            variant="soft"
            onClick={() => void all(pausable, (id) => call(api.jobs[':id'].pause.$post({ param: { id } })))}
          >
            {WORDS.pauseAll}
          </Button>
        )}
        {paused.length > 0 && (
          <Button
            variant="soft"
            onClick={() =>
              void all(paused, (id) => call(api.jobs[':id'].resume.$post({ param: { id }, json: { isAnyway: false } })))
            }
          >
            {WORDS.resumeAll}
          </Button>
        )}
      </Flex>
      {problem && (
        <Box as="p" role="alert" color="ember">
          {problem}
        </Box>
      )}
      {data?.length === 0 && <Empty title={WORDS.nothingYet}>{WORDS.howRendersCome}</Empty>}
      {running.length + waiting.length > 0 && <PartTitle>{WORDS.toBeMade}</PartTitle>}
      <div role="list" aria-label={WORDS.underWay}>
        {running.map((job) => (
          <Row key={job.id} job={job} attempt={attempt} />
        ))}
      </div>
      <SortableList
        label={WORDS.waiting}
        instructions={WORDS.howToMove}
        ids={ids}
        onMove={(id, to) => void move(id, to)}
      >
        {waiting.map((job) => (
          <WaitingRow key={job.id} job={job} attempt={attempt} />
        ))}
      </SortableList>
      {over.length > 0 && <PartTitle>{WORDS.over}</PartTitle>}
      <div role="list" aria-label={WORDS.over}>
        {over.map((job) => (
          <Row key={job.id} job={job} attempt={attempt} />
        ))}
      </div>
    </Box>
  );
}
