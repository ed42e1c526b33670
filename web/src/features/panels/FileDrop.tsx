import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { MediaKindId } from '@core/piece';
import { MEDIA_ON_DESK } from '../media/media-kinds';
import { importFiles, useImports } from './imports';
import type { Import } from './imports';
import { Button } from '../../ui/Button';
import { FileDropPlace } from '../../ui/FilePick';
import { ProgressBar } from '../../ui/ProgressBar';
import { WORDS } from './words';

/** A file on its way in, with progress and cancel. */
function ImportRow({ name, stage, share, cancel }: Import) {
  return (
    <Box role="status" margin="8px 0" textAlign="left">
      <Flex gap="8px" alignItems="center">
        <Box color="text" flex="1" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          {name}
        </Box>
        <Button variant="quiet" aria-label={WORDS.cancelImport(name)} onClick={cancel}>
          {WORDS.cancel}
        </Button>
      </Flex>
      <Box fontSize="13px" margin="2px 0 4px">
        {stage === null ? WORDS.waiting : `${stage} ${Math.round(share * 100)} %`}
      </Box>
      <ProgressBar label={stage ?? WORDS.waiting} share={share} />
    </Box>
  );
}

/** A place to drop or pick files; those on their way in are listed above it, in order. */
export function FileDrop({
  wanted,
  label,
  children,
}: {
  wanted: readonly MediaKindId[];
  label: string;
  children: ReactNode;
}) {
  const underway = useImports(({ list }) => list).filter(
    (one) => one.wanted === 'any' || one.wanted.some((kind) => wanted.includes(kind)),
  );
  return (
    <>
      {underway.map((one) => (
        <ImportRow key={one.id} {...one} />
      ))}
      <FileDropPlace
        className="drop"
        label={label}
        accept={wanted.map((kind) => MEDIA_ON_DESK[kind].accept).join()}
        many
        onFiles={(files) => void importFiles(files, wanted)}
      >
        {children}
      </FileDropPlace>
    </>
  );
}
