import { Box, Flex } from '@chakra-ui/react';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { setLogoReport, useLogoReport } from './logo-store';
import { WORDS } from './words';

/** What of a file did not come in as layers, and what can be done about it. */
export function LogoReportCard() {
  const report = useLogoReport((s) => s.report);
  const piece = usePiece();
  if (!report || !piece.layers.some((layer) => layer.id === report.groupId)) return null;
  return (
    <Box as="section" role="status" aria-label={WORDS.leftOut(report.name)} marginTop="12px">
      <p>{WORDS.whatIsLeftOut(report.left)}</p>
      <Flex gap="6px" flexWrap="wrap">
        <Button variant="soft" onClick={() => void import('./as-picture').then(({ asPicture }) => asPicture(report))}>
          {WORDS.asPicture}
        </Button>
        <Button variant="quiet" onClick={() => setLogoReport(null)}>
          {WORDS.keep}
        </Button>
      </Flex>
    </Box>
  );
}
