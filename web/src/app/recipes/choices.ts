import { defineSlotRecipe } from '@chakra-ui/react';
import {
  checkboxAnatomy,
  colorPickerAnatomy,
  nativeSelectAnatomy,
  sliderAnatomy,
  tabsAnatomy,
} from '@chakra-ui/react/anatomy';
import { field } from './controls';

/** Controls of several parts that choose something. */

export const nativeSelect = defineSlotRecipe({
  className: 'choice',
  slots: nativeSelectAnatomy.keys(),
  base: {
    root: { width: 'auto', minWidth: '0', display: 'inline-flex' },
    field: {
      ...field,
      width: '100%',
      padding: '3px 22px 3px 8px',
      lineHeight: '1.4',
      cursor: 'pointer',
      textOverflow: 'ellipsis',
    },
    indicator: { right: '5px', color: 'muted', _icon: { width: '13px', height: '13px' } },
  },
  variants: {
    variant: {
      field: {},
      quiet: {
        field: {
          bg: 'transparent',
          color: 'muted',
          _hover: { color: 'text', bg: 'raised', borderColor: 'transparent' },
        },
      },
    },
    size: { fit: {} },
  },
  defaultVariants: { variant: 'field', size: 'fit' },
});

export const checkbox = defineSlotRecipe({
  className: 'tick',
  slots: checkboxAnatomy.keys(),
  base: {
    root: { gap: '7px' },
    label: { font: 'inherit', fontWeight: 'inherit', _disabled: { opacity: '0.5' } },
    control: {
      width: '18px',
      height: '18px',
      padding: '2px',
      borderRadius: '5px',
      bg: 'raised',
      color: 'onLamp',
      borderWidth: '1px',
      borderColor: 'line',
      cursor: 'pointer',
      _icon: { boxSize: '12px' },
      '&:is([data-state=checked])': { bg: 'lamp', borderColor: 'lamp' },
      '&[data-focus-visible]': { outline: '2px solid {colors.lamp}', outlineOffset: '1px' },
    },
  },
  variants: { variant: { field: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'field', size: 'fit' },
});

export const tabs = defineSlotRecipe({
  className: 'leaves',
  slots: tabsAnatomy.keys(),
  base: {
    root: { marginTop: '8px', _horizontal: { display: 'block' } },
    content: { padding: '10px 0 0', outline: 'none', _horizontal: { padding: '10px 0 0' } },
    list: {
      gap: '2px',
      flexWrap: 'wrap',
      borderBottom: '1px solid {colors.line}',
      _horizontal: { flexDirection: 'row' },
    },
    trigger: {
      font: 'inherit',
      fontWeight: 'inherit',
      minWidth: '0',
      height: 'auto',
      padding: '4px 7px',
      color: 'muted',
      cursor: 'pointer',
      whiteSpace: 'nowrap',
      focusVisibleRing: 'none',
      _hover: { color: 'text' },
      _selected: { color: 'text', boxShadow: 'inset 0 -2px {colors.tide}' },
    },
  },
  variants: { variant: { leaves: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'leaves', size: 'fit' },
});

const thumb = { boxSize: '14px', borderWidth: '2px', borderColor: 'white', '--thumb-size': '14px' };

export const colorPicker = defineSlotRecipe({
  className: 'colour',
  slots: colorPickerAnatomy.keys(),
  base: {
    root: { display: 'inline-flex', gap: '0' },
    control: { gap: '6px' },
    trigger: {
      '--input-height': '26px',
      boxSize: '26px',
      minH: '26px',
      minW: '26px',
      padding: '0',
      overflow: 'hidden',
      borderRadius: '7px',
      border: '1px solid {colors.line}',
      cursor: 'pointer',
      '& > *': { boxSize: '100%', borderRadius: '0' },
    },
    content: {
      width: '224px',
      padding: '10px',
      gap: '10px',
      bg: 'raised',
      border: '1px solid {colors.line}',
      borderRadius: '12px',
      boxShadow: '0 14px 40px #0007',
      '--thumb-size': '14px',
      '--slider-height': '12px',
    },
    area: { height: '132px', borderRadius: '8px' },
    areaThumb: thumb,
    channelSliderThumb: thumb,
    channelSliderTrack: { height: '12px' },
  },
  variants: { variant: { field: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'field', size: 'fit' },
});

/** Places along a strip, each with a knob. */
export const slider = defineSlotRecipe({
  className: 'strip',
  slots: sliderAnatomy.keys(),
  base: {
    root: { width: '100%', padding: '4px 8px 8px', position: 'relative' },
    control: { position: 'relative', display: 'flex', alignItems: 'center', height: '26px', cursor: 'copy' },
    track: { flex: '1', height: '16px', borderRadius: '5px', border: '1px solid {colors.line}' },
    thumb: {
      boxSize: '14px',
      borderRadius: '4px',
      border: '2px solid {colors.text}',
      outline: '1px solid {colors.ground}',
      cursor: 'ew-resize',
      touchAction: 'none',
      '&[data-chosen]': { borderColor: 'lamp', zIndex: '2' },
      '&[data-focus]': { outline: '2px solid {colors.lamp}' },
    },
  },
  variants: { variant: { field: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'field', size: 'fit' },
});
