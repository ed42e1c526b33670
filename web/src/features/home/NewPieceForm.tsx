import { Box, Flex, Input, Span } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { DESTINATIONS } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import { saidBy } from '../../platform/api';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { makePiece } from './make-piece';
import { BEGIN, DESTINATION_IDS, RATE_LABELS, formatsOf, newPieceSchema } from './new-piece-schema';
import type { FrameChoice, NewPiece } from './new-piece-schema';
import { WORDS } from './words';

/** @param withTemplate - whether it begins with one that is chosen there. */
export type OnMade = (id: string, withTemplate: boolean) => void;

/** Asks what a piece is for: the frames it is seen in, and its frame rate. */
export function NewPieceForm({ onMade, onCancel }: { onMade: OnMade; onCancel: () => void }) {
  const form = useForm<NewPiece>({ resolver: zodResolver(newPieceSchema), defaultValues: BEGIN });
  const { errors, isSubmitting } = form.formState;
  const frames = useWatch({ control: form.control, name: 'frames' });
  const problem = errors.custom?.message ?? errors.root?.message;
  const make = (withTemplate: boolean) =>
    form.handleSubmit(async (wanted) => {
      try {
        const id = await makePiece(wanted.name || WORDS.untitled, formatsOf(wanted), FRAME_RATES[wanted.rate]);
        onMade(id, withTemplate);
      } catch (error) {
        form.setError('root', { message: saidBy(error, WORDS.failed) });
      }
    });
  const side = (name: 'custom.width' | 'custom.height', label: string) => (
    <Controller
      control={form.control}
      name={name}
      render={({ field }) => (
        <NumberField label={label} value={field.value} decimals={0} width={100} onChange={field.onChange} />
      )}
    />
  );
  return (
    <Box as="form" onSubmit={(event) => void make(false)(event)} display="grid" gap="18px">
      <Box as="h2" fontSize="18px" fontWeight="600" margin="0">
        {WORDS.newPiece}
      </Box>
      <Box as="label" display="grid" gap="5px">
        <span className="muted">{WORDS.name}</span>
        <Input autoFocus maxLength={200} onFocus={(e) => e.target.select()} {...form.register('name')} />
      </Box>
      <Controller
        control={form.control}
        name="frames"
        render={({ field }) => <Frames chosen={field.value} onChange={field.onChange} />}
      />
      {frames.includes('custom') && (
        <Flex gap="10px" alignItems="center">
          {side('custom.width', WORDS.width)}×{side('custom.height', WORDS.height)}
          <span className="muted">{WORDS.pixels}</span>
        </Flex>
      )}
      <Box as="label" display="flex" gap="10px" alignItems="center">
        <span className="muted">{WORDS.rate}</span>
        <Choice className="mono" {...form.register('rate')}>
          {RATE_LABELS.map((label) => (
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
          {WORDS.cancel}
        </Button>
        <Button type="button" variant="soft" disabled={isSubmitting} onClick={() => void make(true)()}>
          {WORDS.fromTemplate}
        </Button>
        <Button type="submit" variant="lamp" disabled={isSubmitting}>
          {WORDS.create}
        </Button>
      </Flex>
    </Box>
  );
}

/** Frames to choose among, as shapes; one is always chosen. */
function Frames({
  chosen,
  onChange,
}: {
  chosen: readonly FrameChoice[];
  onChange: (chosen: readonly FrameChoice[]) => void;
}) {
  const toggle = (frame: FrameChoice) => {
    const others = chosen.filter((other) => other !== frame);
    if (others.length === chosen.length) onChange([...chosen, frame]);
    else if (others.length > 0) onChange(others);
  };
  const option = (frame: FrameChoice, [width, height]: readonly [number, number], hint: string) => (
    <FrameOption
      key={frame}
      label={WORDS.frames[frame]}
      hint={chosen[0] === frame && chosen.length > 1 ? WORDS.leads : hint}
      share={[width / Math.max(width, height), height / Math.max(width, height)]}
      isChosen={chosen.includes(frame)}
      onClick={() => toggle(frame)}
    />
  );
  return (
    <Box as="fieldset" border="0" padding="0" margin="0">
      <Box as="legend" className="muted" marginBottom="7px">
        {WORDS.seenIn}
      </Box>
      <Flex gap="8px" flexWrap="wrap">
        {DESTINATION_IDS.map((id) => {
          const { width, height } = DESTINATIONS[id];
          return option(id, [width, height], `${width} × ${height}`);
        })}
        {option('custom', [16, 9], WORDS.ownSize)}
      </Flex>
    </Box>
  );
}

/** The longer side of a frame's shape, pixels of the page. */
const SHAPE = 54;

function FrameOption({
  label,
  hint,
  share,
  isChosen,
  onClick,
}: {
  label: string;
  hint: string;
  /** Width and height against the longer side. */
  share: readonly [number, number];
  isChosen: boolean;
  onClick: () => void;
}) {
  return (
    <Button
      variant="bare"
      type="button"
      aria-pressed={isChosen}
      onClick={onClick}
      flex="1"
      background={isChosen ? 'raised' : 'none'}
      border="1.5px solid"
      borderColor={isChosen ? 'lamp' : 'line'}
      borderRadius="12px"
      padding="12px 6px"
      cursor="pointer"
      display="grid"
      justifyItems="center"
      gap="6px"
      alignContent="end"
      minWidth="92px"
    >
      <Span
        borderRadius="4px"
        background={isChosen ? 'lamp' : 'line'}
        style={{ width: SHAPE * share[0], height: SHAPE * share[1] }}
      />
      <span>{label}</span>
      <Span className="muted" fontSize="11px">
        {hint}
      </Span>
    </Button>
  );
}
