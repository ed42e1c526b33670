import { Box, Popover, Portal } from '@chakra-ui/react';
import { MARKS, isRole, markOf, markValue } from '@core/piece';
import type { MarkId, MediaRef } from '@core/piece';
import { stillAddress } from '../../platform/still-address';
import { usePiece } from '../../store/selectors';
import { setView } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { FileButton } from '../../ui/FilePick';
import { OptionGrid } from '../../ui/OptionGrid';
import { bringPictures } from '../roster/bring-pictures';
import { WORDS } from './words';

const COLUMNS = 6;

function Glyph({ d }: { d: string }) {
  return (
    <svg viewBox="0 0 100 100" width="22" height="22" aria-hidden="true">
      <path d={d} fill="currentColor" fillRule="evenodd" />
    </svg>
  );
}

/** What a slot of a mark or picture holds: one of our marks, a picture or film of the piece, or a logo by its role. */
export function MarkChoice({
  name,
  value,
  hasMarks,
  disabled = false,
  onChange,
}: {
  name: string;
  value: string;
  /** Whether it may be a mark; else pictures and films alone. */
  hasMarks: boolean;
  disabled?: boolean;
  onChange: (value: string) => void;
}) {
  const { media, wardrobe } = usePiece();
  const pictures = media.filter(({ kind }) => kind === 'picture' || (kind === 'footage' && !hasMarks));
  const shown = markOf(value);
  const refOf = (id: string) => pictures.find((one) => one.id === id);
  const picture = refOf(isRole(value) ? (wardrobe.logos[value.slice(1)] ?? '') : value);
  const others = [
    ...Object.entries(wardrobe.logos).map(([role, id]) => ({ value: `@${role}`, label: role, ref: refOf(id) })),
    ...pictures.map((ref) => ({ value: ref.id, label: ref.name, ref })),
  ];
  return (
    <Popover.Root positioning={{ placement: 'bottom-start' }} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <Button variant="soft" aria-label={WORDS.otherMark(name)} disabled={disabled} gap="7px" hasTip={false}>
          {shown ? <Glyph d={shown.d} /> : picture ? <Thumb media={picture} /> : null}
          {shown?.label ??
            others.find((one) => one.value === value)?.label ??
            (hasMarks ? WORDS.mark : WORDS.pictureOrFilm)}{' '}
          …
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="292px" aria-label={WORDS.otherMark(name)}>
            <Popover.Body padding="10px">
              {hasMarks && (
                <OptionGrid
                  label={WORDS.marks}
                  columns={COLUMNS}
                  display="grid"
                  gridTemplateColumns={`repeat(${COLUMNS}, 1fr)`}
                  gap="4px"
                >
                  {(Object.keys(MARKS) as MarkId[]).map((id) => (
                    // keys of the table
                    <Popover.CloseTrigger key={id} asChild>
                      <Button
                        variant="quiet"
                        padding="8px"
                        role="option"
                        aria-selected={markValue(id) === value}
                        aria-label={MARKS[id].label}
                        color={markValue(id) === value ? 'lamp' : 'text'}
                        onClick={() => onChange(markValue(id))}
                      >
                        <Glyph d={MARKS[id].d} />
                      </Button>
                    </Popover.CloseTrigger>
                  ))}
                </OptionGrid>
              )}
              {others.length > 0 && (
                <Box marginTop="8px" maxHeight="180px" overflowY="auto" role="group" aria-label={WORDS.pictures}>
                  {others.map((one) => (
                    <Popover.CloseTrigger key={one.value} asChild>
                      <Button
                        variant="quiet"
                        width="100%"
                        justifyContent="flex-start"
                        gap="7px"
                        // The trigger would name all of them alike.
                        aria-label={one.label}
                        color={one.value === value ? 'lamp' : 'text'}
                        onClick={() => onChange(one.value)}
                      >
                        {one.ref && <Thumb media={one.ref} />}
                        {one.label}
                      </Button>
                    </Popover.CloseTrigger>
                  ))}
                </Box>
              )}
              <FileButton
                label={WORDS.importPictureFor(name)}
                accept={hasMarks ? 'image/*,.svg' : 'image/*,.svg,video/*'}
                onFiles={(files) =>
                  void bringPictures(files.slice(0, 1)).then(({ ids, wrong }) => {
                    if (wrong !== null) setView({ notice: wrong });
                    if (ids[0] !== undefined) onChange(ids[0]);
                  })
                }
              >
                <Button variant="soft" width="100%" marginTop="8px">
                  {WORDS.importPicture}
                </Button>
              </FileButton>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

const Thumb = ({ media }: { media: MediaRef }) => <img alt="" className="layer-icon" src={stillAddress(media)} />;
