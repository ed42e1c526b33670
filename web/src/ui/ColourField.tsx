import { ColorPicker, Flex, Portal, parseColor } from '@chakra-ui/react';
import { Pipette } from 'lucide-react';
import { useRef } from 'react';
import { colourOf } from '@core/piece';
import { newId } from '../platform/ids';
import { useDesk } from '../store/desk-store';
import { Button } from './Button';
import { HexField } from './HexField';
import { WORDS } from './words';

interface Props {
  readonly label: string;
  readonly value: string;
  /** `gesture` is the same for all changes of one drag, so that it is one undo. */
  readonly onChange: (value: string, gesture: string) => void;
  /** Only the swatch. */
  readonly compact?: boolean;
  /** Whether it may wear a role of the wardrobe. */
  readonly hasRoles?: boolean;
}

/** The browser's own eyedropper (EyeDropper API, WICG); not every browser has one. */
const canPickFromScreen = typeof window !== 'undefined' && 'EyeDropper' in window;

const NO_ROLES: Readonly<Record<string, string>> = {};

/** As documents have it: eight digits only where it can be seen through. */
const hexOf = (colour: ReturnType<typeof parseColor>): string => {
  const hex = colour.toString('hexa').toLowerCase();
  return hex.endsWith('ff') ? hex.slice(0, 7) : hex;
};

/** A colour by its field of light and strength, its hue, how much it covers, or its hex digits. */
export function ColourField({ label, value: given, onChange, compact = false, hasRoles = true }: Props) {
  const drag = useRef<string | null>(null);
  const wardrobe = useDesk((s) => s.piece?.wardrobe);
  const roles = hasRoles ? (wardrobe?.colours ?? NO_ROLES) : NO_ROLES;
  const value = wardrobe ? colourOf(wardrobe, given) : given;
  return (
    <ColorPicker.Root
      value={parseColor(value)}
      format="rgba"
      positioning={{ placement: 'left-start' }}
      lazyMount
      unmountOnExit
      onValueChange={(e) => {
        const next = hexOf(e.value);
        if (next !== hexOf(parseColor(value))) onChange(next, (drag.current ??= newId()));
      }}
      onValueChangeEnd={() => {
        drag.current = null;
      }}
      size={'fit' as never} // of our own recipe (theme.ts)
      variant={'field' as never}
    >
      <ColorPicker.Control>
        <ColorPicker.Trigger aria-label={compact ? label : WORDS.picker(label)}>
          <span style={{ background: value }} />
        </ColorPicker.Trigger>
        {!compact && <HexField label={label} value={given} onChange={onChange} />}
      </ColorPicker.Control>
      <Portal>
        <ColorPicker.Positioner>
          <ColorPicker.Content aria-label={WORDS.picker(label)}>
            <ColorPicker.Area>
              <ColorPicker.AreaBackground />
              <ColorPicker.AreaThumb />
            </ColorPicker.Area>
            <ColorPicker.ChannelSlider channel="hue">
              <ColorPicker.ChannelSliderTrack />
              <ColorPicker.ChannelSliderThumb />
            </ColorPicker.ChannelSlider>
            <ColorPicker.ChannelSlider channel="alpha">
              <ColorPicker.TransparencyGrid />
              <ColorPicker.ChannelSliderTrack />
              <ColorPicker.ChannelSliderThumb />
            </ColorPicker.ChannelSlider>
            {canPickFromScreen && (
              <ColorPicker.EyeDropperTrigger asChild>
                <Button variant="soft">
                  <Pipette size={14} /> {WORDS.fromTheScreen}
                </Button>
              </ColorPicker.EyeDropperTrigger>
            )}
            {Object.keys(roles).length > 0 && (
              <Flex gap="4px" flexWrap="wrap" role="group" aria-label={WORDS.wears(label)} maxWidth="220px">
                {Object.entries(roles).map(([role, colour]) => (
                  <Button
                    key={role}
                    variant="quiet"
                    hasTip={false}
                    aria-pressed={given === `@${role}`}
                    onClick={() => onChange(`@${role}`, newId())}
                  >
                    <span className="swatch" style={{ background: colour }} aria-hidden="true" /> {role}
                  </Button>
                ))}
              </Flex>
            )}
          </ColorPicker.Content>
        </ColorPicker.Positioner>
      </Portal>
    </ColorPicker.Root>
  );
}
