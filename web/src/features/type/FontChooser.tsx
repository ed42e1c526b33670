import { Box, Flex, Input, Popover, Portal, Span } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { familyLabel, familyOf, isRole } from '@core/piece';
import type { Edit } from '@core/piece';
import { cssFamily, registerCssFamily } from '../../platform/css-fonts';
import { usePiece } from '../../store/selectors';
import { Star } from '../../ui/Star';
import { importFile } from '../panels/import-file';
import { useFamilies, useFavourites } from './families';
import type { OfferedFamily } from './families';
import { Button } from '../../ui/Button';
import { FileButton } from '../../ui/FilePick';
import { MEDIA_ON_DESK } from '../media/media-kinds';
import { WORDS } from './words';

const SHELVES = { all: WORDS.all, favourites: WORDS.starred, own: WORDS.yours } as const;

/**
 * All families, each showing the layer's own words; searched by name or feel. Starred ones come first. Font files are
 * brought in here.
 */
export function FontChooser({
  family,
  sample,
  onChoose,
}: {
  family: string;
  sample: string;
  onChoose: (family: string, edits: readonly Edit[]) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const [search, setSearch] = useState('');
  const [shelf, setShelf] = useState<keyof typeof SHELVES>('all');
  const [busy, setBusy] = useState<string | null>(null);
  const piece = usePiece();
  const families = useFamilies(isOpen);
  const { favourites, toggle } = useFavourites();
  const stop = useRef<AbortController | null>(null);
  useEffect(() => {
    if (isOpen) for (const f of families) void registerCssFamily(f.id, f.files);
  }, [isOpen, families]);
  const { fonts } = piece.wardrobe;
  const label = isRole(family)
    ? `${family.slice(1)} · ${familyLabel(familyOf(piece.wardrobe, family))}`
    : familyLabel(family);
  const shown = families
    .filter(
      (f) =>
        (shelf === 'own' ? f.files.length > 0 : shelf === 'favourites' ? favourites.includes(f.id) : true) &&
        search
          .toLowerCase()
          .split(/\s+/)
          .every((word) => `${f.label} ${f.feel}`.toLowerCase().includes(word)),
    )
    .sort((a, b) => Number(favourites.includes(b.id)) - Number(favourites.includes(a.id)));
  const choose = (f: OfferedFamily) => {
    const missing = f.files.filter((file) => !piece.media.some((m) => m.hash === file.hash));
    onChoose(
      f.id,
      missing.map((media) => ({ type: 'media.add', media })),
    );
    setOpen(false);
  };
  const bringIn = async (files: readonly File[]) => {
    stop.current = new AbortController();
    for (const file of files)
      await importFile(
        file,
        ['font'],
        (p) => setBusy(p && `${p.name} ${Math.round(p.share * 100)} %`),
        stop.current.signal,
      );
    setShelf('own');
  };
  return (
    <Popover.Root
      open={isOpen}
      onOpenChange={(e) => setOpen(e.open)}
      positioning={{ placement: 'left-start' }}
      lazyMount
    >
      <Popover.Trigger asChild>
        <Button variant="quiet" aria-label={WORDS.face(label)} color="text">
          {label}
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            width="320px"
            onDragOver={(e) => e.preventDefault()}
            onDrop={(e) => {
              e.preventDefault();
              e.stopPropagation();
              void bringIn([...e.dataTransfer.files]);
            }}
          >
            <Popover.Body p="3">
              <Input
                aria-label={WORDS.searchFaces}
                placeholder={WORDS.nameOrFeelWarm}
                value={search}
                onChange={(e) => setSearch(e.target.value)}
                onKeyDown={(e) => e.stopPropagation()}
                width="100%"
                marginBottom="6px"
              />
              {Object.keys(fonts).length > 0 && (
                <Flex gap="4px" marginBottom="6px" wrap="wrap" role="group" aria-label={WORDS.fontRoles}>
                  {Object.entries(fonts).map(([role, worn]) => (
                    <Button
                      key={role}
                      variant="soft"
                      hasTip={false}
                      aria-pressed={family === `@${role}`}
                      onClick={() => {
                        onChoose(`@${role}`, []);
                        setOpen(false);
                      }}
                    >
                      {role}
                      <Span className="muted">{familyLabel(worn)}</Span>
                    </Button>
                  ))}
                </Flex>
              )}
              <Flex gap="2px" marginBottom="6px" role="group" aria-label={WORDS.shelf}>
                {Object.entries(SHELVES).map(([id, name]) => (
                  <Button
                    key={id}
                    variant="quiet"
                    aria-pressed={shelf === id}
                    onClick={() => setShelf(id as keyof typeof SHELVES)}
                  >
                    {name}
                  </Button>
                ))}
                <FileButton
                  label={WORDS.bringInFontFiles}
                  accept={MEDIA_ON_DESK.font.accept}
                  many
                  onFiles={(files) => void bringIn(files)}
                >
                  <Button variant="quiet" marginLeft="auto" title={WORDS.ttfOtfWoffOr}>
                    {WORDS.bringIn}
                  </Button>
                </FileButton>
              </Flex>
              {busy && (
                <Box as="p" className="muted" role="status" margin="0 0 6px">
                  {busy}{' '}
                  <Button variant="quiet" padding="0" onClick={() => stop.current?.abort()}>
                    {WORDS.cancel}
                  </Button>
                </Box>
              )}
              <Box maxHeight="360px" overflowY="auto" role="list" aria-label={WORDS.faces}>
                {shown.length === 0 && (
                  <p className="muted">
                    {shelf === 'own'
                      ? WORDS.noFontsOfYour
                      : shelf === 'favourites'
                        ? WORDS.nothingStarredYet
                        : WORDS.noFaceIsCalled}
                  </p>
                )}
                {shown.map((f) => (
                  <Flex key={f.id} role="listitem" alignItems="center">
                    <Button
                      variant="bare"
                      aria-pressed={f.id === family}
                      aria-label={f.label}
                      className={`list-row${f.id === family ? ' on' : ''}`}
                      display="block"
                      minWidth="0"
                      onClick={() => choose(f)}
                    >
                      <Span
                        fontSize="21px"
                        fontWeight="600"
                        display="block"
                        overflow="hidden"
                        whiteSpace="nowrap"
                        textOverflow="ellipsis"
                        lineHeight="1.3"
                        style={{ fontFamily: `'${cssFamily(f.id)}'` }}
                      >
                        {sample.split('\n')[0]?.slice(0, 40) || f.label}
                      </Span>
                      <Span className="muted" fontSize="11.5px">
                        {f.label} · {f.feel}
                      </Span>
                    </Button>
                    <Button
                      variant="quiet"
                      aria-label={WORDS.star(f.label)}
                      aria-pressed={favourites.includes(f.id)}
                      padding="5px"
                      onClick={() => toggle(f.id)}
                    >
                      <Star pinned={favourites.includes(f.id)} holds={false} size={15} />
                    </Button>
                  </Flex>
                ))}
              </Box>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
