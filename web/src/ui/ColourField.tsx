import { ColorPicker, Portal, parseColor } from '@chakra-ui/react';
import { useRef } from 'react';
import { newId } from '../platform/ids';
import { HexField } from './HexField';
import { WORDS } from './words';

interface Props {
  readonly label: string;
  readonly value: string;
  /** `gesture` is the same for all changes of one drag, so that it is one undo. */
  readonly onChange: (value: string, gesture: string) => void;
  /** Only the swatch. */
  readonly compact?: boolean;
}

/** As documents have it: eight digits only where it can be seen through. */
const hexOf = (colour: ReturnType<typeof parseColor>): string => {
  const hex = colour.toString('hexa').toLowerCase();
  return hex.endsWith('ff') ? hex.slice(0, 7) : hex;
};

/** A colour by its field of light and strength, its hue, how much it covers, or its hex digits. */
export function ColourField({ label, value, onChange, compact = false }: Props) {
  const drag = useRef<string | null>(null);
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
        {!compact && <HexField label={label} value={value} onChange={onChange} />}
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
          </ColorPicker.Content>
        </ColorPicker.Positioner>
      </Portal>
    </ColorPicker.Root>
  );
}
