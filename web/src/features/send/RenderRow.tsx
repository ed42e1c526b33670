import { Box, Flex, Image, Span } from '@chakra-ui/react';
import { Download, Pause, Play, RotateCcw, Trash2, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { EXPORT_KINDS } from '@core/formats';
import type { ExportSettings } from '@core/formats';
import { api, call } from '../../platform/api';
import { Button } from '../../ui/Button';
import { ProgressBar } from '../../ui/ProgressBar';
import type { useSortableRow } from '../../ui/SortableList';
import { megabytesText } from './megabytes-text';
import { isActive } from './use-exports';
import type { ExportJob } from './use-exports';
import { WORDS } from './words';

function minutes(seconds: number): string {
  return seconds < 60
    ? `${Math.max(1, Math.round(seconds))} s`
    : WORDS.minS(Math.floor(seconds / 60), Math.round(seconds % 60));
}

/** The settings that are not as usual. */
function settingsText({ rate, loudness, captions, hasChapters }: ExportSettings): string {
  const parts = [
    rate.by === 'quality'
      ? rate.quality === 'good'
        ? ''
        : WORDS.ofQuality(rate.quality)
      : rate.by === 'bits'
        ? WORDS.ofBits(rate.kilobits / 1000, rate.isTwoPass)
        : WORDS.ofSize(rate.megabytes),
    loudness ? WORDS.ofLoudness(loudness.target) : '',
    captions === 'shown' ? '' : WORDS.noCaptions,
    hasChapters ? WORDS.withChapters : '',
  ];
  return parts.filter((part) => part !== '').join(', ');
}

/** What came of a render. */
function madeText(job: ExportJob): string {
  const { made } = job;
  if (!made) return '';
  const parts = [
    made.bytes === undefined ? '' : megabytesText(made.bytes),
    made.isTooLarge ? WORDS.largerThanAsked : '',
    made.left && made.left.length > 0 ? WORDS.without(made.left) : '',
    typeof made.loudness?.integrated === 'number'
      ? WORDS.measured(made.loudness.integrated, made.loudness.truePeak ?? 0)
      : '',
    made.seconds === undefined ? '' : WORDS.tookSo(minutes(made.seconds)),
  ];
  return parts.filter((part) => part !== '').join(', ');
}

/** A render in a list: how far it is, what came of it, and what can be done with it. */
export function RenderRow({
  job,
  title,
  sortable,
  attempt,
  children,
}: {
  job: ExportJob;
  title: ReactNode;
  /** How it can be put elsewhere in its list. */
  sortable?: ReturnType<typeof useSortableRow>;
  attempt: (work: () => Promise<unknown>) => Promise<void>;
  /** What can be done with it further. */
  children?: ReactNode;
}) {
  const { id, state, made, what } = job;
  const param = { param: { id } };
  const label = EXPORT_KINDS[job.exportKind].label;
  const action = (name: string, icon: ReactNode, work: () => Promise<unknown>) => (
    <Button variant="quiet" aria-label={name} title={name} onClick={() => void attempt(work)}>
      {icon}
    </Button>
  );
  const resume = (isAnyway: boolean) => call(api.jobs[':id'].resume.$post({ ...param, json: { isAnyway } }));
  const asked = what ? settingsText(what.settings) : '';
  const hasPicture = state === 'running' || (state === 'succeeded' && job.hasPicture);
  return (
    <Box
      ref={sortable?.ref}
      style={sortable?.style}
      role="listitem"
      className="list-row"
      display="block"
      cursor="default"
      data-job={id}
      data-state={state}
    >
      <Flex alignItems="center" gap="8px" wrap="wrap" justifyContent="flex-end">
        {sortable?.handle}
        {hasPicture && (
          <Image
            src={`/api/jobs/${id}/picture?p=${Math.round(job.progress * 200)}`}
            alt=""
            maxWidth="64px"
            maxHeight="46px"
            borderRadius="3px"
            flexShrink={0}
            onError={(e) => (e.currentTarget.style.visibility = 'hidden')}
            onLoad={(e) => (e.currentTarget.style.visibility = 'visible')}
          />
        )}
        <Box flex="1 1 150px" minWidth={0}>
          <Box overflow="hidden" textOverflow="ellipsis">
            {title}{' '}
            <Span className="muted" fontSize="12px">
              {new Date(job.createdAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
            </Span>
          </Box>
          {(asked || made) && (
            <Box className="muted" fontSize="12px">
              {[asked, madeText(job)].filter((text) => text !== '').join(' → ')}
            </Box>
          )}
        </Box>
        {(state === 'queued' || state === 'running') &&
          action(WORDS.pauseTheRender, <Pause size={15} />, () => call(api.jobs[':id'].pause.$post(param)))}
        {state === 'paused' && action(WORDS.resumeTheRender, <Play size={15} />, () => resume(false))}
        {isActive(state) &&
          action(WORDS.cancelTheRender, <X size={15} />, () => call(api.jobs[':id'].cancel.$post(param)))}
        {(state === 'failed' || state === 'canceled') &&
          action(WORDS.renderAgain, <RotateCcw size={15} />, () => call(api.jobs[':id'].again.$post(param)))}
        {!isActive(state) &&
          action(state === 'succeeded' ? WORDS.deleteTheFile : WORDS.takeOffTheList, <Trash2 size={15} />, () =>
            call(api.jobs[':id'].$delete(param)),
          )}
        {state === 'succeeded' && (
          <Button asChild variant="soft">
            <a href={`/api/jobs/${id}/file`} download aria-label={WORDS.downloadThe(label)}>
              <Download size={15} />
              {WORDS.download}
            </a>
          </Button>
        )}
      </Flex>
      {isActive(state) && (
        <>
          <ProgressBar label={WORDS.rendering} share={job.progress} margin="5px 0 3px" />
          <Span className="muted" fontSize="12px">
            {state === 'queued'
              ? WORDS.waitingForItsTurn
              : state === 'paused'
                ? (job.message ?? WORDS.isPaused)
                : `${Math.round(job.progress * 100)} %${job.secondsLeft === null ? '' : WORDS.aboutLeft(minutes(job.secondsLeft))}`}
          </Span>
          {job.canRenderAnyway && (
            <Button variant="soft" onClick={() => void attempt(() => resume(true))}>
              {WORDS.renderAnyway}
            </Button>
          )}
        </>
      )}
      {state === 'failed' && (
        <Span color="ember" fontSize="12px">
          {job.message}
        </Span>
      )}
      {state === 'canceled' && (
        <Span className="muted" fontSize="12px">
          {WORDS.cancelledNothingKept}
        </Span>
      )}
      {children}
    </Box>
  );
}
