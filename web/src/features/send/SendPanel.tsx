import { Box } from '@chakra-ui/react';
import { Download, ListOrdered } from 'lucide-react';
import { Link } from 'react-router';
import { EXPORT_KINDS } from '@core/formats';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { PosterRow } from './PosterRow';
import { RenderForm } from './RenderForm';
import { RenderRow } from './RenderRow';
import { Revisions } from './Revisions';
import { Sending } from './Sending';
import { useAttempt } from './use-attempt';
import { useExports } from './use-exports';
import { WORDS } from './words';

/** Renders the piece to files, keeps it as a file, and brings earlier revisions back. */
export function SendPanel() {
  const piece = usePiece();
  const { data } = useExports(piece.id);
  const { problem, attempt } = useAttempt();
  return (
    <>
      <h2 className="title">{WORDS.send}</h2>
      <RenderForm jobs={data ?? []} attempt={attempt} />
      {problem && (
        <Box as="p" role="alert" color="ember">
          {problem}
        </Box>
      )}
      <div aria-label={WORDS.exports} role="list">
        {data?.map((job) => {
          const { label, isFormatless } = EXPORT_KINDS[job.exportKind];
          const format = piece.formats.find((f) => f.id === job.formatId)?.name ?? job.formatId;
          const title = job.fileName || (isFormatless ? label : format);
          return (
            <RenderRow
              key={job.id}
              job={job}
              attempt={attempt}
              title={
                <>
                  {title} {!(isFormatless && title === label) && <span className="muted">{label} </span>}
                </>
              }
            >
              <Sending job={job} pieceId={piece.id} name={`${title} ${label}`} attempt={attempt} />
            </RenderRow>
          );
        })}
      </div>
      <Button asChild variant="quiet">
        <Link to="/renders">
          <ListOrdered size={15} />
          {WORDS.allRenders}
        </Link>
      </Button>
      <hr className="rule" />
      <PosterRow />
      <Button asChild variant="quiet">
        <a href={`/api/pieces/${piece.id}/file`} download>
          <Download size={15} />
          {WORDS.keepThePieceAs}
        </a>
      </Button>
      <Revisions attempt={attempt} />
    </>
  );
}
