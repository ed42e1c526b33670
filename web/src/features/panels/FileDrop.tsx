import { Box } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { ReactNode } from 'react';
import type { MediaKindId } from '@core/piece';
import { MEDIA_ON_DESK } from '../media/media-kinds';
import { importFile } from './import-file';
import type { ImportProgress } from './import-file';
import { Button } from '../../ui/Button';
import { FileDropPlace } from '../../ui/FilePick';
import { ProgressBar } from '../../ui/ProgressBar';
import { WORDS } from './words';

/** A place to drop or pick a file, with progress and cancel. */
export function FileDrop({
  wanted,
  label,
  children,
}: {
  wanted: readonly MediaKindId[];
  label: string;
  children: ReactNode;
}) {
  const [progress, setProgress] = useState<ImportProgress | null>(null);
  const abort = useRef<AbortController | null>(null);
  const take = (file: File | undefined) => {
    if (!file) return;
    abort.current = new AbortController();
    void importFile(file, wanted, setProgress, abort.current.signal);
  };
  if (progress) {
    return (
      <div className="drop" role="status">
        <Box color="text" overflow="hidden" textOverflow="ellipsis">
          {progress.name}
        </Box>
        <Box margin="4px 0 8px">
          {progress.stage} {Math.round(progress.share * 100)} %
        </Box>
        <ProgressBar label={progress.stage} share={progress.share} />
        <Button variant="quiet" marginTop="8px" onClick={() => abort.current?.abort()}>
          {WORDS.cancel}
        </Button>
      </div>
    );
  }
  return (
    <FileDropPlace
      className="drop"
      label={label}
      accept={wanted.map((kind) => MEDIA_ON_DESK[kind].accept).join()}
      onFiles={([file]) => take(file)}
    >
      {children}
    </FileDropPlace>
  );
}
