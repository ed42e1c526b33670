import { Box, Flex, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { DESTINATION_KINDS, destinationSchema } from '@core/formats';
import type { Destination, DestinationKind } from '@core/formats';
import { api, call } from '../../platform/api';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { FieldRow } from './FieldRow';
import { WORDS } from './words';

type Places = Awaited<ReturnType<typeof lookAt>>;
const lookAt = (address: string) =>
  call(api.destinations.look.$post({ json: { address } })).then((answer) => answer.places);

/** A destination more: a channel with its account and place, or a folder. */
export function NewDestination({
  attempt,
  onAdded,
}: {
  attempt: (work: () => Promise<unknown>) => Promise<void>;
  onAdded: (id: string) => void;
}) {
  const [kind, setKind] = useState<DestinationKind>('channel');
  const [name, setName] = useState('');
  const [folder, setFolder] = useState('');
  const [address, setAddress] = useState('');
  const [token, setToken] = useState('');
  const [places, setPlaces] = useState<Places>([]);
  const [place, setPlace] = useState('');
  const wanted: unknown = kind === 'folder' ? { kind, name, folder } : { kind, name, address, token, place };
  const read = destinationSchema.safeParse(wanted);
  const chosen = places.find(({ id }) => id === place);
  const look = () =>
    attempt(async () => {
      const found = await lookAt(address);
      setPlaces(found);
      setPlace(found[0]?.id ?? '');
    });
  const add = (destination: Destination) =>
    attempt(async () => {
      onAdded((await call(api.destinations.$post({ json: destination }))).id);
      setName('');
    });
  const field = (label: string, value: string, set: (value: string) => void, hint = '', type = 'text') => (
    <FieldRow name={label}>
      <Input
        flex="1"
        aria-label={label}
        value={value}
        type={type}
        placeholder={hint}
        autoComplete="off"
        onChange={(e) => set(e.target.value)}
      />
    </FieldRow>
  );
  return (
    <Box role="group" aria-label={WORDS.newDestination}>
      <FieldRow name={WORDS.destinationKind}>
        <Choice
          aria-label={WORDS.destinationKind}
          value={kind}
          onChange={(e) => setKind(e.target.value as DestinationKind)} // its options are the kinds
        >
          {Object.entries(DESTINATION_KINDS).map(([id, { label }]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </FieldRow>
      <Box className="muted" fontSize="12px" padding="2px 0 6px">
        {DESTINATION_KINDS[kind].hint}
      </Box>
      {field(WORDS.destinationName, name, setName)}
      {kind === 'folder' ? (
        field(WORDS.folder, folder, setFolder, WORDS.folderHint)
      ) : (
        <>
          {field(WORDS.address, address, setAddress, WORDS.addressHint)}
          {field(WORDS.token, token, setToken, '', 'password')}
          <FieldRow name={WORDS.placeThere}>
            {places.length > 0 && (
              <Choice aria-label={WORDS.placeThere} value={place} onChange={(e) => setPlace(e.target.value)}>
                {places.map(({ id, label }) => (
                  <option key={id} value={id}>
                    {label}
                  </option>
                ))}
              </Choice>
            )}
            <Button variant="quiet" disabled={address === ''} onClick={() => void look()}>
              {WORDS.lookThere}
            </Button>
          </FieldRow>
          {chosen && (
            <Box className="muted" fontSize="12px">
              {chosen.rules.join('; ')}
            </Box>
          )}
        </>
      )}
      <Flex justifyContent="flex-end" paddingTop="6px">
        <Button variant="soft" disabled={!read.success} onClick={() => read.success && void add(read.data)}>
          {WORDS.addDestination}
        </Button>
      </Flex>
    </Box>
  );
}
