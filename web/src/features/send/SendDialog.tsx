import { Box, Dialog, Flex, Input, Span } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { DESTINATION_KINDS } from '@core/formats';
import { ApiError, api, call } from '../../platform/api';
import { DialogFrame } from '../../ui/DialogFrame';
import { Button } from '../../ui/Button';
import { Tick } from '../../ui/Tick';
import { FieldRow } from './FieldRow';
import { NewDestination } from './NewDestination';
import { useAttempt } from './use-attempt';
import { DESTINATIONS_KEY, sendsKey, useDestinations } from './use-sends';
import type { DestinationRow } from './use-sends';
import { WORDS } from './words';

/** What goes along to one destination. */
interface Along {
  readonly title: string;
  readonly text: string;
}
const NOTHING: Along = { title: '', text: '' };

interface Props {
  readonly renderId: string;
  readonly pieceId: string;
  /** What the file is called. */
  readonly name: string;
  readonly onClose: () => void;
}

/** Where a file is sent, with what words, and when. */
export function SendDialog({ renderId, pieceId, name, onClose }: Props) {
  const queries = useQueryClient();
  const { data: destinations = [] } = useDestinations();
  const { problem, attempt } = useAttempt();
  const [along, setAlong] = useState<ReadonlyMap<string, Along>>(new Map());
  const [when, setWhen] = useState('');
  const [isAdding, setAdding] = useState(false);
  const change = (id: string, to: Along | null) => {
    const next = new Map(along);
    if (to) next.set(id, to);
    else next.delete(id);
    setAlong(next);
  };
  const [isSentBefore, setSentBefore] = useState(false);
  const send = (isRepeat: boolean) =>
    attempt(async () => {
      const to = [...along].map(([destinationId, one]) => ({ destinationId, ...one }));
      const at = when === '' ? null : new Date(when).toISOString();
      try {
        await call(api.sends.$post({ json: { renderId, to, at, isRepeat } }));
      } catch (error) {
        setSentBefore(error instanceof ApiError && error.code === 'SENT_BEFORE');
        throw error;
      }
      await queries.invalidateQueries({ queryKey: sendsKey(pieceId) });
      onClose();
    });
  const forget = (id: string) =>
    attempt(async () => {
      await call(api.destinations[':id'].$delete({ param: { id } }));
      change(id, null);
      await queries.invalidateQueries({ queryKey: DESTINATIONS_KEY });
    });
  return (
    <DialogFrame label={WORDS.sendFile(name)} maxW="520px" onClose={onClose}>
      <Dialog.Title className="title" fontSize="16px">
        {WORDS.sendFile(name)}
      </Dialog.Title>
      <Box role="list" aria-label={WORDS.destinations} paddingTop="8px">
        {destinations.map((one) => (
          <DestinationChoice
            key={one.id}
            destination={one}
            along={along.get(one.id) ?? null}
            onChange={(to) => change(one.id, to)}
            onForget={() => void forget(one.id)}
          />
        ))}
      </Box>
      {isAdding || destinations.length === 0 ? (
        <NewDestination
          attempt={attempt}
          onAdded={(id) => {
            setAdding(false);
            change(id, NOTHING);
            void queries.invalidateQueries({ queryKey: DESTINATIONS_KEY });
          }}
        />
      ) : (
        <Button variant="quiet" onClick={() => setAdding(true)}>
          {WORDS.anotherDestination}
        </Button>
      )}
      {problem && (
        <Box as="p" role="alert" color="ember">
          {problem}
        </Box>
      )}
      <hr className="rule" />
      <FieldRow name={WORDS.notBefore}>
        <Input
          type="datetime-local"
          aria-label={WORDS.notBefore}
          value={when}
          width="auto"
          onChange={(e) => setWhen(e.target.value)}
        />
        <span className="muted">{when === '' ? WORDS.atOnce : ''}</span>
      </FieldRow>
      <Flex justifyContent="flex-end" gap="8px" paddingTop="10px">
        <Button variant="quiet" onClick={onClose}>
          {WORDS.cancel}
        </Button>
        {isSentBefore && problem && (
          <Button variant="soft" disabled={along.size === 0} onClick={() => void send(true)}>
            {WORDS.sendRepeat}
          </Button>
        )}
        <Button variant="lamp" disabled={along.size === 0} onClick={() => void send(false)}>
          {WORDS.sendTo(along.size)}
        </Button>
      </Flex>
    </DialogFrame>
  );
}

function DestinationChoice({
  destination,
  along,
  onChange,
  onForget,
}: {
  destination: DestinationRow;
  /** Null while it is not chosen. */
  along: Along | null;
  onChange: (along: Along | null) => void;
  onForget: () => void;
}) {
  const { kind, name, where } = destination;
  return (
    <Box role="listitem" className="list-row" display="block" cursor="default">
      <Flex alignItems="center" gap="8px">
        <Box flex="1" minWidth={0}>
          <Tick checked={along !== null} onChange={(on) => onChange(on ? NOTHING : null)}>
            {name}{' '}
            <Span className="muted" fontSize="12px">
              {DESTINATION_KINDS[kind].label}, {where}
            </Span>
          </Tick>
        </Box>
        <Button variant="quiet" aria-label={WORDS.forgetDestination(name)} onClick={onForget}>
          <X size={14} />
        </Button>
      </Flex>
      {along && kind === 'channel' && (
        <>
          <FieldRow name={WORDS.titleThere}>
            <Input
              flex="1"
              aria-label={WORDS.titleFor(name)}
              placeholder={WORDS.titleHint}
              value={along.title}
              onChange={(e) => onChange({ ...along, title: e.target.value })}
            />
          </FieldRow>
          <FieldRow name={WORDS.textThere}>
            <Input
              flex="1"
              aria-label={WORDS.textFor(name)}
              value={along.text}
              onChange={(e) => onChange({ ...along, text: e.target.value })}
            />
          </FieldRow>
        </>
      )}
    </Box>
  );
}
