import { defineSlotRecipe } from '@chakra-ui/react';
import { dialogAnatomy, menuAnatomy, popoverAnatomy, toastAnatomy, tooltipAnatomy } from '@chakra-ui/react/anatomy';

/** What lies over the desk. */
const sheet = {
  bg: 'raised',
  color: 'text',
  border: '1px solid {colors.line}',
  borderRadius: '14px',
  boxShadow: '0 18px 60px #0008',
};

export const dialog = defineSlotRecipe({
  slots: dialogAnatomy.keys(),
  base: {
    backdrop: { bg: '#0a0d1199' },
    content: { ...sheet, bg: 'surface', font: 'inherit' },
    title: { fontSize: '16px', fontWeight: '600', lineHeight: '1.3' },
    body: { color: 'text' },
  },
});

export const popover = defineSlotRecipe({
  slots: popoverAnatomy.keys(),
  base: { content: { ...sheet, font: 'inherit' } },
});

export const tooltip = defineSlotRecipe({
  slots: tooltipAnatomy.keys(),
  base: {
    content: {
      ...sheet,
      borderRadius: '8px',
      boxShadow: '0 6px 20px #0006',
      padding: '4px 9px',
      fontSize: '12px',
      fontWeight: '400',
      lineHeight: '1.4',
      pointerEvents: 'none',
    },
  },
});

export const menu = defineSlotRecipe({
  className: 'menu',
  slots: menuAnatomy.keys(),
  base: {
    content: { ...sheet, borderRadius: '10px', padding: '5px', minWidth: '190px', font: 'inherit', outline: 'none' },
    itemGroup: { padding: '0', '& + &': { borderTop: '1px solid {colors.line}', marginTop: '4px', paddingTop: '4px' } },
    item: {
      display: 'flex',
      justifyContent: 'space-between',
      gap: '18px',
      padding: '4px 9px',
      borderRadius: '6px',
      lineHeight: '1.4',
      cursor: 'pointer',
      _highlighted: { bg: 'color-mix(in srgb, {colors.lamp} 22%, transparent)' },
    },
  },
  variants: { variant: { sheet: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'sheet', size: 'fit' },
});

export const toast = defineSlotRecipe({
  className: 'toast',
  slots: toastAnatomy.keys(),
  base: {
    root: {
      ...sheet,
      bg: 'raised',
      color: 'text',
      borderRadius: '999px',
      boxShadow: '0 10px 30px #0007',
      padding: '5px 34px 5px 16px',
      minHeight: '36px',
      width: 'auto',
      minWidth: '0',
      maxWidth: 'min(620px, 90vw)',
      gap: '10px',
      alignItems: 'center',
    },
    title: { font: 'inherit', fontWeight: '400', marginEnd: '0' },
    actionTrigger: {
      color: 'lamp',
      border: '0',
      bg: 'transparent',
      padding: '3px 9px',
      height: 'auto',
      font: 'inherit',
      fontWeight: '600',
      borderRadius: '7px',
      cursor: 'pointer',
      _hover: { bg: 'line' },
    },
    closeTrigger: {
      color: 'muted',
      top: '50%',
      insetEnd: '7px',
      transform: 'translateY(-50%)',
      padding: '5px',
      borderRadius: '999px',
      cursor: 'pointer',
      _hover: { color: 'text' },
      _icon: { boxSize: '14px' },
    },
  },
});
