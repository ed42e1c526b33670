import { defineRecipe, defineSlotRecipe } from '@chakra-ui/react';
import { editableAnatomy, emptyStateAnatomy, progressAnatomy } from '@chakra-ui/react/anatomy';
import { field } from './controls';

/** What tells how things are: progress, empty places, what is on its way, names being changed. */

export const progress = defineSlotRecipe({
  className: 'progress',
  slots: progressAnatomy.keys(),
  base: {
    track: { height: '4px', borderRadius: '2px', bg: 'line', overflow: 'hidden' },
    range: { height: '100%', bg: 'tide', transition: 'width 120ms linear' },
  },
  variants: { variant: { bar: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'bar', size: 'fit' },
});

export const emptyState = defineSlotRecipe({
  className: 'empty',
  slots: emptyStateAnatomy.keys(),
  base: {
    content: { display: 'flex', flexDirection: 'column', alignItems: 'flex-start', gap: '6px', maxWidth: '54ch' },
    title: { fontSize: '15px', fontWeight: '500', color: 'text' },
    description: { color: 'muted' },
  },
  variants: { variant: { place: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'place', size: 'fit' },
});

export const editable = defineSlotRecipe({
  className: 'name-edit',
  slots: editableAnatomy.keys(),
  base: { root: { display: 'flex' }, input: { ...field, width: '100%', minWidth: '0', padding: '1px 5px' } },
  variants: { variant: { name: {} }, size: { fit: {} } },
  defaultVariants: { variant: 'name', size: 'fit' },
});

export const skeleton = defineRecipe({
  className: 'coming',
  base: { borderRadius: '8px', bg: 'surface', color: 'transparent', pointerEvents: 'none' },
  variants: {
    variant: { still: {}, pulse: { _motionSafe: { animation: 'pulse', animationDuration: '1.6s' } } },
    loading: { true: {}, false: {} },
  },
  defaultVariants: { variant: 'pulse', loading: true },
});
