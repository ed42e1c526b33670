import { Box, Dialog, Input } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, call } from '../../platform/api';
import { usePiece } from '../../store/selectors';
import { DialogFrame } from '../../ui/DialogFrame';
import { Button } from '../../ui/Button';
import { putPiece } from './within-commands';
import { WORDS } from './words';

/** Most pieces that are offered at once; a search finds the others. */
const OFFERED = 24;

/** The other pieces, to put one of them up. */
export function PieceChooser({ onClose }: { onClose: () => void }) {
  const { id } = usePiece();
  const [search, setSearch] = useState('');
  const { data } = useQuery({
    queryKey: ['pieces-within', search],
    queryFn: () =>
      call(api.pieces.$get({ query: { search, order: 'changed', offset: '0', limit: String(OFFERED + 1) } })),
  });
  const others = data?.pieces.filter((piece) => piece.id !== id).slice(0, OFFERED);
  return (
    <DialogFrame label={WORDS.choosePiece} maxW="640px" padding="6" onClose={onClose}>
      <Dialog.Title className="title">{WORDS.choosePiece}</Dialog.Title>
      <Input
        aria-label={WORDS.search}
        placeholder={WORDS.search}
        width="100%"
        marginTop="8px"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      {others?.length === 0 && search === '' && <p className="muted">{WORDS.noOther}</p>}
      <Box
        display="grid"
        gridTemplateColumns="repeat(3, minmax(0, 1fr))"
        gap="10px"
        marginTop="12px"
        maxHeight="60vh"
        overflowY="auto"
      >
        {others?.map((piece) => (
          <Button
            key={piece.id}
            variant="soft"
            hasTip={false}
            aria-label={WORDS.putUp(piece.name)}
            flexDirection="column"
            height="auto"
            padding="8px"
            onClick={() => {
              onClose();
              void putPiece(piece.id, piece.name);
            }}
          >
            <Box
              as="img"
              {...{ src: `/api/pieces/${piece.id}/frame/poster?r=${piece.revision}`, alt: '' }}
              width="100%"
              height="92px"
              objectFit="contain"
            />
            {piece.name}
          </Button>
        ))}
      </Box>
    </DialogFrame>
  );
}
