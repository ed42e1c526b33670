import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { PaletteEntry } from '@core/colour';
import { familyLabel } from '@core/piece';
import type { Wardrobe } from '@core/piece';
import { DEFAULT_FAMILY, FONT_FAMILY_IDS } from '@core/text';
import { edit, setView } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { ColourField } from '../../ui/ColourField';
import { Empty } from '../../ui/Empty';
import { FileButton } from '../../ui/FilePick';
import { KeptWardrobes } from './KeptWardrobes';
import { LogoRoles } from './LogoRoles';
import { RoleChoice, without } from './RoleChoice';
import { READABLE, contrastOf, rolesFor } from './palette-roles';
import { paletteOfFile, recolourPiece, saveTokens, setWardrobe, takeTokens } from './wardrobe-commands';
import { SWATCH_SHAPES, addSwatches } from './swatches';
import type { SwatchShape } from './swatches';
import { WORDS } from './words';

/** What a new role begins with. */
const NEW_COLOUR = '#9ba6b2';

/** The piece's own colours and fonts, by role. */
export function WardrobeTab() {
  const { wardrobe } = usePiece();
  const [palette, setPalette] = useState<{ name: string; entries: readonly PaletteEntry[] } | null>(null);
  const look = async (file: File) => {
    const entries = await paletteOfFile(file);
    if (entries) setPalette({ name: file.name, entries });
    else setView({ notice: WORDS.noPalette });
  };
  const hasColours = Object.keys(wardrobe.colours).length > 0;
  return (
    <>
      <ColourRoles wardrobe={wardrobe} />
      {!hasColours && (
        <Empty title={WORDS.noRoles} marginTop="12px">
          {WORDS.howItWorks}
        </Empty>
      )}
      {hasColours && (
        <Button variant="soft" marginTop="6px" onClick={recolourPiece}>
          {WORDS.recolour}
        </Button>
      )}
      {Object.keys(wardrobe.colours).length > 1 && <Swap wardrobe={wardrobe} />}
      {hasColours && (
        <Choice
          aria-label={WORDS.addSwatches}
          value=""
          width="100%"
          onChange={(e) => e.target.value && addSwatches(e.target.value as SwatchShape)} // a value of the list
        >
          <option value="">{WORDS.chooseSwatches}</option>
          {SWATCH_SHAPES.map((shape) => (
            <option key={shape} value={shape}>
              {WORDS.swatchShapes[shape]}
            </option>
          ))}
        </Choice>
      )}
      <hr className="rule" />
      <FileButton label={WORDS.pictureFor} accept="image/*" onFiles={([file]) => file && void look(file)}>
        <Button variant="soft">{WORDS.fromPicture}</Button>
      </FileButton>
      {palette && (
        <Palette
          {...palette}
          onDone={(isTaken) => {
            if (isTaken) setWardrobe({ colours: { ...wardrobe.colours, ...rolesFor(palette.entries) } });
            setPalette(null);
          }}
        />
      )}
      <hr className="rule" />
      <FontRoles wardrobe={wardrobe} />
      <hr className="rule" />
      <LogoRoles wardrobe={wardrobe} />
      <hr className="rule" />
      <KeptWardrobes />
      <Flex gap="6px" marginTop="10px" flexWrap="wrap">
        <Button variant="soft" onClick={() => void saveTokens()}>
          {WORDS.toFile}
        </Button>
        <FileButton
          label={WORDS.fileOf}
          accept=".json,application/json"
          onFiles={([file]) => file && void takeTokens(file)}
        >
          <Button variant="soft">{WORDS.fromFile}</Button>
        </FileButton>
      </Flex>
    </>
  );
}

/** Roles that words are set on, and roles that words are set in. */
const GROUNDS = new Set(['ground', 'surface']);
const READ = new Set(['text', 'muted']);

/** The named roles first, in their order; stored documents keep none. */
function inOrder(colours: Wardrobe['colours']): [string, string][] {
  const named = Object.keys(WORDS.roles);
  const rank = (role: string): number => (named.includes(role) ? named.indexOf(role) : named.length);
  return Object.entries(colours).sort(([a], [b]) => rank(a) - rank(b) || a.localeCompare(b));
}

function ColourRoles({ wardrobe }: { wardrobe: Wardrobe }) {
  const { colours } = wardrobe;
  const { ground } = colours;
  return (
    <section aria-label={WORDS.colours}>
      <Box role="list" aria-label={WORDS.colours}>
        {inOrder(colours).map(([role, colour]) => {
          const isRead = READ.has(role);
          const ratio = ground && !GROUNDS.has(role) ? contrastOf(colour, ground) : null;
          return (
            <Box key={role} role="listitem" className="list-row" display="block">
              <Flex alignItems="center" gap="6px">
                <Box flex="1" overflow="hidden" textOverflow="ellipsis">
                  {role}
                </Box>
                <ColourField
                  label={role}
                  value={colour}
                  hasRoles={false}
                  onChange={(value, gesture) => setWardrobe({ colours: { ...colours, [role]: value } }, gesture)}
                />
                <Button
                  variant="quiet"
                  padding="0 4px"
                  aria-label={WORDS.remove(role)}
                  onClick={() => setWardrobe({ colours: without(colours, role) })}
                >
                  ×
                </Button>
              </Flex>
              {ratio !== null && (
                <Box fontSize="12px" color={isRead && ratio < READABLE ? 'ember' : 'muted'}>
                  {WORDS.contrastOn(ratio.toFixed(1))}
                  {isRead && ratio < READABLE ? `, ${WORDS.tooFaint}` : ''}
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
      <RoleChoice
        label={WORDS.addARole}
        offered={WORDS.roles}
        taken={colours}
        onChoose={(role) => setWardrobe({ colours: { ...colours, [role]: colours[role] ?? NEW_COLOUR } })}
      />
    </section>
  );
}

function Swap({ wardrobe }: { wardrobe: Wardrobe }) {
  const roles = Object.keys(wardrobe.colours);
  const [first, setFirst] = useState('');
  const [second, setSecond] = useState('');
  const [a, b] = [roles.includes(first) ? first : roles[0]!, roles.includes(second) ? second : roles[1]!]; // two at least
  const choice = (label: string, value: string, onChange: (role: string) => void) => (
    <Choice aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
      {roles.map((role) => (
        <option key={role} value={role}>
          {role}
        </option>
      ))}
    </Choice>
  );
  return (
    <Flex gap="6px" alignItems="center" marginTop="6px" flexWrap="wrap">
      <Button variant="soft" disabled={a === b} onClick={() => edit([{ type: 'wardrobe.swap', a, b }])}>
        {WORDS.swap}
      </Button>
      {choice(WORDS.swapFirst, a, setFirst)}
      {choice(WORDS.swapSecond, b, setSecond)}
    </Flex>
  );
}

function Palette({
  name,
  entries,
  onDone,
}: {
  name: string;
  entries: readonly PaletteEntry[];
  onDone: (isTaken: boolean) => void;
}) {
  return (
    <section aria-label={WORDS.paletteOf(name)}>
      <Flex gap="4px" margin="8px 0" flexWrap="wrap">
        {Object.entries(rolesFor(entries)).map(([role, colour]) => (
          <Flex key={role} direction="column" alignItems="center" fontSize="12px">
            <span className="swatch" style={{ background: colour }} title={colour} />
            {role}
          </Flex>
        ))}
      </Flex>
      <Flex gap="6px">
        <Button variant="soft" onClick={() => onDone(true)}>
          {WORDS.takePalette}
        </Button>
        <Button variant="quiet" onClick={() => onDone(false)}>
          {WORDS.notThisPalette}
        </Button>
      </Flex>
    </section>
  );
}

function FontRoles({ wardrobe }: { wardrobe: Wardrobe }) {
  const { fonts } = wardrobe;
  return (
    <section aria-label={WORDS.fonts}>
      <Box as="strong" fontWeight="600">
        {WORDS.fonts}
      </Box>
      {Object.entries(fonts).map(([role, family]) => (
        <div key={role} className="prop">
          <span />
          <span className="name">{role}</span>
          <Flex gap="4px">
            <Choice
              aria-label={WORDS.familyOf(role)}
              value={family}
              onChange={(e) => setWardrobe({ fonts: { ...fonts, [role]: e.target.value } })}
            >
              {[...new Set([family, ...FONT_FAMILY_IDS])].map((id) => (
                <option key={id} value={id}>
                  {familyLabel(id)}
                </option>
              ))}
            </Choice>
            <Button
              variant="quiet"
              padding="0 4px"
              aria-label={WORDS.remove(role)}
              onClick={() => setWardrobe({ fonts: without(fonts, role) })}
            >
              ×
            </Button>
          </Flex>
        </div>
      ))}
      <RoleChoice
        label={WORDS.addAFontRole}
        offered={WORDS.fontRoles}
        taken={fonts}
        onChoose={(role) => setWardrobe({ fonts: { ...fonts, [role]: fonts[role] ?? DEFAULT_FAMILY } })}
      />
    </section>
  );
}
