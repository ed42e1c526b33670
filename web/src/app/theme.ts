import { createSystem, defaultBaseConfig, defineConfig, mergeConfigs } from '@chakra-ui/react';
import {
  animationStyles,
  breakpoints,
  buttonRecipe,
  checkboxSlotRecipe,
  checkmarkRecipe,
  colorPickerSlotRecipe,
  dialogSlotRecipe,
  globalCss,
  headingRecipe,
  inputRecipe,
  kbdRecipe,
  keyframes,
  layerStyles,
  menuSlotRecipe,
  nativeSelectSlotRecipe,
  popoverSlotRecipe,
  semanticTokens,
  tabsSlotRecipe,
  tooltipSlotRecipe,
  textStyles,
  textareaRecipe,
  toastSlotRecipe,
  tokens,
} from '@chakra-ui/react/theme';
import { PALETTE } from './palette';
import { button, input, kbd, textarea } from './recipes/controls';
import { checkbox, colorPicker, nativeSelect, slider, tabs } from './recipes/choices';
import { editable, emptyState, progress, skeleton } from './recipes/feedback';
import { dialog, menu, popover, toast, tooltip } from './recipes/overlays';

/**
 * Our own face on the component library: night ink and lamplight, or paper. Colours are tokens with a value for each
 * variant; controls are recipes, so that nothing of how a button looks is written where one stands.
 */
const config = defineConfig({
  conditions: { light: ":root[data-theme='light'] &", dark: ":root[data-theme='dark'] &" },
  globalCss: { 'html, body': { bg: 'ground', color: 'text' } },
  theme: {
    recipes: { button, input, kbd, skeleton, textarea },
    slotRecipes: {
      checkbox,
      colorPicker,
      dialog,
      editable,
      emptyState,
      menu,
      nativeSelect,
      popover,
      progress,
      slider,
      tabs,
      toast,
      tooltip,
    },
    tokens: {
      fonts: {
        body: { value: "'Spline Sans Variable', sans-serif" },
        heading: { value: "'Spline Sans Variable', sans-serif" },
        mono: { value: "'Spline Sans Mono Variable', monospace" },
      },
    },
    semanticTokens: {
      colors: {
        ...Object.fromEntries(
          Object.entries(PALETTE).map(([name, { night, paper }]) => [name, { value: { base: night, _light: paper } }]),
        ),
        bg: {
          DEFAULT: { value: '{colors.surface}' },
          panel: { value: '{colors.raised}' },
          subtle: { value: '{colors.surface}' },
          muted: { value: '{colors.raised}' },
          emphasized: { value: '{colors.line}' },
        },
        fg: {
          DEFAULT: { value: '{colors.text}' },
          muted: { value: '{colors.muted}' },
          subtle: { value: '{colors.muted}' },
        },
        border: {
          DEFAULT: { value: '{colors.line}' },
          muted: { value: '{colors.line}' },
          subtle: { value: '{colors.line}' },
          emphasized: { value: '{colors.muted}' },
        },
      },
    },
  },
});

/** The library's measures, and how the parts of those components lie that are used: the rest would only be loaded. */
const base = defineConfig({
  preflight: true,
  globalCss,
  theme: {
    breakpoints,
    keyframes,
    tokens,
    semanticTokens,
    textStyles,
    layerStyles,
    animationStyles,
    recipes: {
      button: buttonRecipe,
      checkmark: checkmarkRecipe,
      heading: headingRecipe,
      input: inputRecipe,
      kbd: kbdRecipe,
      textarea: textareaRecipe,
    },
    slotRecipes: {
      checkbox: checkboxSlotRecipe,
      colorPicker: colorPickerSlotRecipe,
      dialog: dialogSlotRecipe,
      menu: menuSlotRecipe,
      nativeSelect: nativeSelectSlotRecipe,
      popover: popoverSlotRecipe,
      tabs: tabsSlotRecipe,
      toast: toastSlotRecipe,
      tooltip: tooltipSlotRecipe,
    },
  },
});

export const system = createSystem(mergeConfigs(defaultBaseConfig, base), config);
