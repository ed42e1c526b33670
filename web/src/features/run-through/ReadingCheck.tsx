import { Box, Flex, Span } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { CheckId } from '@core/checks';
import type { Piece, TextLayer } from '@core/piece';
import { freeMoment } from '@core/time';
import { lookAtContrast } from '../../platform/checks-client';
import type { CheckedFinding } from '../../platform/checks-protocol';
import { edit } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { FindingRow } from './FindingRow';
import { lookAt } from './look-at';
import { REMEDIES } from './remedies';
import { Button } from '../../ui/Button';
import { useScan } from './use-scan';
import { WORDS } from './words';

const nameOf = (piece: Piece, id: string) => piece.layers.find((l) => l.id === id)?.name ?? WORDS.aLayer;

const READING: readonly CheckId[] = ['reading', 'safe-area', 'families'];

/** Can it be read? Time, place, faces, and how the letters stand out from what is behind them. */
export function ReadingCheck({ findings }: { findings: readonly CheckedFinding[] | null }) {
  const piece = usePiece();
  const times = useTimes();
  const own = findings?.filter((f) => READING.includes(f.check)) ?? [];
  /** Ends the layer as late as reading takes, not past the piece. */
  const lengthen = (id: string, stay: number) => {
    const layer = piece.layers.find((l) => l.id === id);
    if (!layer) return;
    const end = freeMoment(Math.min(times.end, times.timeOf(layer.start) + stay));
    edit([{ type: 'layer.setSpan', id, end }]);
  };
  return (
    <section aria-label={WORDS.readingCheck}>
      <h2 className="title">{WORDS.canItBeRead}</h2>
      {findings !== null && own.length === 0 && (
        <Box as="p" color="moss">
          {WORDS.everyTextIsShown}
        </Box>
      )}
      {own.map((f) => {
        const { layerId, wantedStay } = f;
        return (
          <FindingRow key={`${f.check}-${f.layerId ?? ''}-${f.formatId ?? ''}`} at={f} text={f.text}>
            {wantedStay !== null && layerId !== null && (
              <Button
                variant="soft"
                aria-label={WORDS.showLonger(nameOf(piece, layerId))}
                onClick={() => lengthen(layerId, wantedStay)}
              >
                {WORDS.longer}
              </Button>
            )}
          </FindingRow>
        );
      })}
      <ContrastCheck />
    </section>
  );
}

/** A picture that came from the worker. */
function PictureOf({ blob, alt }: { blob: Blob; alt: string }) {
  const [address, setAddress] = useState('');
  useEffect(() => {
    const made = URL.createObjectURL(blob);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [blob]);
  return address === '' ? null : <img src={address} alt={alt} className="evidence" />;
}

function ContrastCheck() {
  const piece = usePiece();
  const { bar, found, isOld } = useScan(lookAtContrast, WORDS.lookAtTheContrast, WORDS.theContrastCouldNot);
  return (
    <div>
      {bar}
      {found?.length === 0 && (
        <Box as="p" color={isOld ? 'muted' : 'moss'}>
          {WORDS.theLettersStandOut}
          {isOld ? WORDS.beforeTheLastChange : ''}.
        </Box>
      )}
      {found?.map((f) => {
        const layer = piece.layers.find((l): l is TextLayer => l.id === f.layerId && l.kind === 'text');
        if (!layer) return null;
        return (
          <Box key={f.layerId} className="list-row" display="block" data-contrast={f.layerId}>
            <Button
              variant="quiet"
              padding="0"
              whiteSpace="normal"
              textAlign="left"
              color="text"
              onClick={() => lookAt({ ...f, formatId: null })}
            >
              <span>
                {layer.name} <Span color="ember">{f.ratio.toFixed(1)} : 1</Span>{' '}
                <span className="muted">{WORDS.where1IsWanted(f.wanted)}</span>
              </span>
            </Button>
            {f.picture && <PictureOf blob={f.picture} alt={WORDS.whereItIsFaintest(layer.name)} />}
            <Flex gap="4px" flexWrap="wrap">
              {Object.entries(REMEDIES).map(([id, remedy]) => (
                <Button
                  key={id}
                  variant="soft"
                  padding="3px 8px"
                  fontSize="12.5px"
                  onClick={() => remedy.apply(layer, f, piece)}
                >
                  {remedy.label}
                </Button>
              ))}
            </Flex>
          </Box>
        );
      })}
    </div>
  );
}
