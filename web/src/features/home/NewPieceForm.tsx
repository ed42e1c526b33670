import { Box, Flex, Input, Span } from '@chakra-ui/react';
import { useState } from 'react';
import { DESTINATIONS, MAX_FRAME_SIDE, MIN_FRAME_SIDE } from '@core/piece';
import type { DestinationId, Format } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import type { FrameRateLabel } from '@core/time';
import { ApiError } from '../../platform/api';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { makePiece } from './make-piece';

const SHORT = { wide: 'Wide', tall: 'Tall', square: 'Square', portrait: 'Portrait' } as const satisfies Record<
  DestinationId,
  string
>;
type Choice = DestinationId | 'custom';

/** Asks what a piece is for: the frame it is seen in, and its frame rate. */
export function NewPieceForm({ onMade, onCancel }: { onMade: (id: string) => void; onCancel: () => void }) {
  const [name, setName] = useState('Untitled piece');
  const [chosen, setChosen] = useState<readonly Choice[]>(['wide']);
  const [custom, setCustom] = useState({ width: 1280, height: 720 });
  const [rate, setRate] = useState<FrameRateLabel>('30');
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const sideFits = (n: number) => Number.isInteger(n) && n >= MIN_FRAME_SIDE && n <= MAX_FRAME_SIDE;

  const toggle = (choice: Choice) =>
    setChosen((c) => (c.includes(choice) ? (c.length > 1 ? c.filter((x) => x !== choice) : c) : [...c, choice]));
  const make = async () => {
    if (chosen.includes('custom') && !(sideFits(custom.width) && sideFits(custom.height)))
      return setProblem(`Each side is a whole number from ${MIN_FRAME_SIDE} to ${MAX_FRAME_SIDE} pixels.`);
    const formats: Format[] = chosen.map((choice) =>
      choice === 'custom'
        ? { id: 'custom', name: 'Custom', ...custom }
        : { id: choice, name: SHORT[choice], width: DESTINATIONS[choice].width, height: DESTINATIONS[choice].height },
    );
    setBusy(true);
    try {
      onMade(await makePiece(name.trim() || 'Untitled piece', formats, FRAME_RATES[rate]));
    } catch (error) {
      setBusy(false);
      setProblem(error instanceof ApiError ? error.message : 'The piece could not be made.');
    }
  };

  const option = (choice: Choice, width: number, height: number, label: string, hint: string) => {
    const k = 54 / Math.max(width, height);
    const order = chosen.indexOf(choice);
    return (
      <Button
        variant="bare"
        key={choice}
        type="button"
        aria-pressed={order >= 0}
        onClick={() => toggle(choice)}
        flex="1"
        background={order >= 0 ? 'raised' : 'none'}
        borderRadius="12px"
        padding="12px 6px"
        cursor="pointer"
        display="grid"
        justifyItems="center"
        gap="6px"
        alignContent="end"
        minWidth="92px"
        style={{ border: `1.5px solid ${order >= 0 ? 'var(--lamp)' : 'var(--line)'}` }}
      >
        <Span
          borderRadius="4px"
          background={order >= 0 ? 'lamp' : 'line'}
          style={{ width: Math.max(8, width * k), height: Math.max(8, height * k) }}
        />
        <span>{label}</span>
        <Span className="muted" fontSize="11px">
          {order === 0 && chosen.length > 1 ? 'leads the others' : hint}
        </Span>
      </Button>
    );
  };

  return (
    <Box
      as="form"
      onSubmit={(e) => {
        e.preventDefault();
        void make();
      }}
      display="grid"
      gap="18px"
    >
      <Box as="h2" fontSize="18px" fontWeight="600" margin="0">
        New piece
      </Box>
      <Box as="label" display="grid" gap="5px">
        <span className="muted">Name</span>
        <Input
          autoFocus
          value={name}
          maxLength={200}
          onChange={(e) => setName(e.target.value)}
          onFocus={(e) => e.target.select()}
        />
      </Box>
      <Box as="fieldset" border="0" padding="0" margin="0">
        <Box as="legend" className="muted" marginBottom="7px">
          Where it will be seen
        </Box>
        <Flex gap="8px" flexWrap="wrap">
          {Object.entries(DESTINATIONS).map(([id, d]) =>
            option(id as DestinationId, d.width, d.height, SHORT[id as DestinationId], `${d.width} × ${d.height}`),
          )}
          {option('custom', custom.width, custom.height, 'Custom', 'your own')}
        </Flex>
      </Box>
      {chosen.includes('custom') && (
        <Flex gap="10px" alignItems="center">
          <NumberField
            label="Width in pixels"
            value={custom.width}
            decimals={0}
            width={100}
            onChange={(width) => setCustom({ ...custom, width })}
          />
          ×
          <NumberField
            label="Height in pixels"
            value={custom.height}
            decimals={0}
            width={100}
            onChange={(height) => setCustom({ ...custom, height })}
          />
          <span className="muted">pixels</span>
        </Flex>
      )}
      <Box as="label" display="flex" gap="10px" alignItems="center">
        <span className="muted">Frames a second</span>
        <Choice className="mono" value={rate} onChange={(e) => setRate(e.target.value as FrameRateLabel)}>
          {Object.keys(FRAME_RATES).map((label) => (
            <option key={label}>{label}</option>
          ))}
        </Choice>
      </Box>
      {problem && (
        <Box as="p" role="alert" color="ember" margin="0">
          {problem}
        </Box>
      )}
      <Flex gap="10px" justifyContent="flex-end">
        <Button type="button" variant="quiet" onClick={onCancel}>
          Cancel
        </Button>
        <Button type="submit" variant="lamp" disabled={isBusy}>
          Create
        </Button>
      </Flex>
    </Box>
  );
}
