import { Box, Span } from '@chakra-ui/react';
import { FileDrop } from './FileDrop';
import { WORDS } from './words';

export const SONGS = ['audio'] as const;

/** Where the first song of a piece is imported. */
export function SongDrop() {
  return (
    <FileDrop wanted={SONGS} label={WORDS.chooseASong}>
      <Box as="strong" color="text" fontWeight="600">
        {WORDS.dropASongHere}
      </Box>
      <br />
      {WORDS.orChooseAFile}
      <br />
      <Span fontSize="11.5px">{WORDS.wavMp3OggOpus}</Span>
    </FileDrop>
  );
}
