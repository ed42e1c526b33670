import { defineRecipe } from '@chakra-ui/react';

/** Buttons and fields. Every size is that of its words. */

/** What is switched on has a line of tide around it. */
const SWITCHED_ON = { boxShadow: 'inset 0 0 0 1px {colors.tide}' };

export const button = defineRecipe({
  className: 'control',
  base: {
    font: 'inherit',
    fontWeight: 'inherit',
    color: 'inherit',
    lineHeight: '1.4',
    borderWidth: '0',
    isolation: 'auto',
    flexShrink: '1',
    transition: 'none',
    cursor: 'pointer',
    focusVisibleRing: 'none',
    _disabled: { opacity: '0.5', cursor: 'default' },
    _icon: { flexShrink: '0' },
  },
  variants: {
    variant: {
      /** The one thing to do here. */
      lamp: {
        bg: 'lamp',
        color: 'onLamp',
        fontWeight: '600',
        borderRadius: '999px',
        padding: '7px 18px',
        gap: '7px',
        _hover: { bg: 'lamp', filter: 'brightness(1.08)' },
      },
      /** What can be done besides. */
      soft: {
        bg: 'raised',
        borderRadius: '8px',
        padding: '6px 11px',
        gap: '7px',
        _hover: { bg: 'line' },
        '&[aria-pressed=true]': {
          bg: 'color-mix(in srgb, {colors.tide} 26%, {colors.raised})',
          color: 'text',
          ...SWITCHED_ON,
        },
      },
      /** Where many stand beside one another. */
      quiet: {
        bg: 'transparent',
        color: 'muted',
        borderRadius: '7px',
        padding: '4px 8px',
        gap: '6px',
        _hover: { color: 'text', bg: 'raised' },
        '&[aria-pressed=true], &[aria-selected=true]': { color: 'lamp' },
        _disabled: { opacity: '0.45', _hover: { color: 'muted', bg: 'transparent' } },
      },
      /** Looks as its class says: rows of lists, the ladder, marks on the timeline. */
      bare: {
        display: 'inline-block',
        bg: 'transparent',
        padding: '0',
        borderRadius: '0',
        gap: '0',
        whiteSpace: 'inherit',
        justifyContent: 'inherit',
        textAlign: 'inherit',
        _hover: { bg: 'transparent' },
      },
    },
    size: { fit: {} },
  },
  defaultVariants: { variant: 'soft', size: 'fit' },
});

export const field = {
  font: 'inherit',
  bg: 'raised',
  color: 'inherit',
  borderWidth: '1px',
  borderColor: 'transparent',
  borderRadius: '7px',
  padding: '5px 8px',
  minWidth: '0',
  height: 'auto',
  width: 'auto',
  transition: 'none',
  focusVisibleRing: 'none',
  _hover: { borderColor: 'line' },
  _focus: { outline: 'none', borderColor: 'lamp' },
};

export const input = defineRecipe({
  className: 'control',
  base: field,
  variants: {
    variant: {
      field: {},
      /** On the desk itself: only its words are seen until it is pointed at. */
      plain: { bg: 'transparent' },
    },
    size: { fit: {} },
  },
  defaultVariants: { variant: 'field', size: 'fit' },
});

export const textarea = defineRecipe({
  className: 'control',
  base: { ...field, width: '100%' },
  variants: { variant: { field: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'field', size: 'fit' },
});

export const kbd = defineRecipe({
  className: 'key',
  base: {
    fontFamily: 'mono',
    fontSize: '11px',
    lineHeight: '1.5',
    height: 'auto',
    padding: '0 5px',
    borderRadius: '4px',
    border: '1px solid {colors.line}',
    borderBottomWidth: '2px',
    bg: 'surface',
    color: 'muted',
    boxShadow: 'none',
  },
  variants: { variant: { key: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'key', size: 'fit' },
});
