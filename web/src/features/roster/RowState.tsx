import { Span } from '@chakra-ui/react';
import type { RowFile } from './use-row-files';
import { WORDS } from './words';

/** How far the files of a row are; those that are there can be had. */
export function RowState({ files, isOwn }: { files: readonly RowFile[]; isOwn: boolean }) {
  return (
    <>
      {isOwn && <Span className="muted">{WORDS.isOwn} </Span>}
      {files.map(({ formatId, fileName, jobId, state, progress, message }) => (
        <Span key={formatId} marginRight="8px" data-row-file={state}>
          {state === 'succeeded' ? (
            <a href={`/api/jobs/${jobId}/file`} download aria-label={WORDS.download(fileName)}>
              {WORDS.state.succeeded}
            </a>
          ) : (
            <Span color={state === 'failed' ? 'ember' : 'muted'} title={message ?? ''}>
              {state === 'failed' ? (message ?? WORDS.state.failed) : WORDS.state[state]}
              {state === 'running' && ` ${Math.round(progress * 100)} %`}
            </Span>
          )}
        </Span>
      ))}
    </>
  );
}
