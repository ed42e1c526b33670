import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { formatOf } from '@core/piece';
import type { Piece } from '@core/piece';
import type { RosterRow } from '@core/roster';
import { useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { TemplatePreview } from '../templates/TemplatePreview';
import { makeOwnPiece } from './make-pieces';
import { WORDS } from './words';

/** The chosen row as it looks, and its way out of the table: a piece of its own, changed by hand. */
export function RowSide({
  groupId,
  template,
  row,
  n,
  values,
  name,
  onOwnPiece,
}: {
  groupId: string;
  template: Piece;
  row: RosterRow | null;
  /** Its number for people. */
  n: number;
  values: Readonly<Record<string, string>>;
  /** What its piece is called. */
  name: string;
  onOwnPiece: (pieceId: string | null) => void;
}) {
  const piece = usePiece();
  const analysis = useAnalysis();
  const formatId = useDesk((s) => s.formatId);
  const [problem, setProblem] = useState<string | null>(null);
  const changeByHand = async () => {
    const made = await makeOwnPiece(piece, groupId, analysis, { values, name });
    if ('why' in made) return setProblem(made.why);
    setProblem(null);
    onOwnPiece(made.id);
  };
  return (
    <Box role="group" aria-label={WORDS.preview}>
      <TemplatePreview
        template={template}
        format={formatOf(piece, formatId)}
        wearer={piece}
        values={values}
        isWatched
        height={158}
      />
      {row && (
        <Flex gap="6px" wrap="wrap" marginTop="6px" alignItems="center">
          {row.ownPieceId === null ? (
            <Button variant="quiet" onClick={() => void changeByHand()}>
              {WORDS.changeByHand(n)}
            </Button>
          ) : (
            <>
              <Button asChild variant="soft">
                <a href={`/piece/${row.ownPieceId}`} target="_blank" rel="noreferrer">
                  {WORDS.openItsPiece(n)}
                </a>
              </Button>
              <Button variant="quiet" onClick={() => onOwnPiece(null)}>
                {WORDS.backToTheTable}
              </Button>
            </>
          )}
        </Flex>
      )}
      {problem && (
        <Box role="alert" color="ember">
          {problem}
        </Box>
      )}
    </Box>
  );
}
