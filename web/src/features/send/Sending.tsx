import { Box, Flex, Link, Span } from '@chakra-ui/react';
import { Link2, RotateCcw, Send as SendIcon, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { api, call } from '../../platform/api';
import { Button } from '../../ui/Button';
import { ProgressBar } from '../../ui/ProgressBar';
import { SendDialog } from './SendDialog';
import { isActive } from './use-exports';
import type { ExportJob } from './use-exports';
import { useSends } from './use-sends';
import type { Send } from './use-sends';
import { WORDS } from './words';

interface Props {
  readonly job: ExportJob;
  readonly pieceId: string;
  readonly name: string;
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>;
}

/** Sending a render: where it goes, what came of it, and a link to it. */
export function Sending({ job, pieceId, name, attempt }: Props) {
  const [isOpen, setOpen] = useState(false);
  const { data, refetch } = useSends(pieceId);
  const sends = data?.filter((send) => send.renderId === job.id) ?? [];
  const work = (one: () => Promise<unknown>) =>
    attempt(async () => {
      await one();
      await refetch();
    });
  if (job.state === 'failed' || job.state === 'canceled') return null;
  const share = (isShared: boolean) =>
    attempt(async () => {
      const { link } = await call(api.jobs[':id'].link.$post({ param: { id: job.id }, json: { isShared } }));
      if (link) await navigator.clipboard?.writeText(`${location.origin}${link}`).catch(() => {}); // it is shown too
    });
  return (
    <Box paddingTop="2px">
      <Flex gap="4px" alignItems="center" wrap="wrap">
        <Button variant="quiet" onClick={() => setOpen(true)}>
          <SendIcon size={14} />
          {job.state === 'succeeded' ? WORDS.sendIt : WORDS.sendWhenDone}
        </Button>
        {job.state === 'succeeded' && (
          <Button variant="quiet" onClick={() => void share(job.link === null)}>
            <Link2 size={14} />
            {job.link === null ? WORDS.makeLink : WORDS.takeLinkBack}
          </Button>
        )}
        {job.link !== null && (
          <Link href={job.link} fontSize="12px" target="_blank" rel="noreferrer" textDecoration="underline">
            {WORDS.theLink}
          </Link>
        )}
      </Flex>
      {sends.length > 0 && (
        <div role="list" aria-label={WORDS.sendsOf(name)}>
          {sends.map((send) => (
            <SendRow key={send.id} send={send} work={work} />
          ))}
        </div>
      )}
      {isOpen && <SendDialog renderId={job.id} pieceId={pieceId} name={name} onClose={() => setOpen(false)} />}
    </Box>
  );
}

function SendRow({ send, work }: { send: Send; work: (one: () => Promise<unknown>) => Promise<void> }) {
  const { id, state, destination, receipt, dueAt, message } = send;
  const param = { param: { id } };
  const action = (label: string, icon: ReactNode, one: () => Promise<unknown>) => (
    <Button variant="quiet" aria-label={label} title={label} onClick={() => void work(one)}>
      {icon}
    </Button>
  );
  const isOver = !isActive(state);
  return (
    <Box role="listitem" data-state={state} fontSize="12px" paddingLeft="10px">
      <Flex alignItems="center" gap="6px">
        <Box flex="1" minWidth={0}>
          {destination}{' '}
          {receipt ? (
            receipt.link.startsWith('http') ? (
              <Link href={receipt.link} target="_blank" rel="noreferrer" textDecoration="underline">
                {WORDS.sentAt(new Date(receipt.at).toLocaleString([], { dateStyle: 'short', timeStyle: 'short' }))}
              </Link>
            ) : (
              <Span className="muted">{WORDS.liesAt(receipt.link)}</Span>
            )
          ) : (
            <Span className={state === 'failed' ? undefined : 'muted'} color={state === 'failed' ? 'ember' : undefined}>
              {message ??
                (state === 'canceled'
                  ? WORDS.sendCancelled
                  : dueAt
                    ? WORDS.sentOn(new Date(dueAt).toLocaleString([], { dateStyle: 'short', timeStyle: 'short' }))
                    : state === 'queued'
                      ? WORDS.waitingForItsTurn
                      : WORDS.onItsWay(Math.round(send.progress * 100)))}
            </Span>
          )}
        </Box>
        {!isOver &&
          action(WORDS.cancelSend(destination), <X size={14} />, () => call(api.jobs[':id'].cancel.$post(param)))}
        {(state === 'failed' || state === 'canceled') &&
          action(WORDS.sendAgain(destination), <RotateCcw size={14} />, () =>
            call(api.sends[':id'].again.$post(param)),
          )}
        {isOver &&
          action(WORDS.forgetSend(destination), <Trash2 size={14} />, () => call(api.sends[':id'].$delete(param)))}
      </Flex>
      {state === 'running' && <ProgressBar label={WORDS.sendingTo(destination)} share={send.progress} margin="2px 0" />}
    </Box>
  );
}
