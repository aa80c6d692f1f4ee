import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

/** Palette, type and spacing; the reasons stand in docs/design.md. */
const pair = (light: string, dark: string) => ({ value: { base: light, _dark: dark } });

const config = defineConfig({
  globalCss: {
    html: { colorPalette: 'cobalt', fontSize: '16px' },
    body: { bg: 'page', color: 'ink', fontFeatureSettings: '"tnum"', lineHeight: 1.35 },
    '*:focus-visible': { outline: '3px solid {colors.focus}', outlineOffset: '1px' },
    'input, select, textarea, button': { font: 'inherit' },
    '.numbers[data-fresh="false"] button': { opacity: 0.8 },
    '.no-print': { _print: { display: 'none' } },
    // Where a reader has colours of their own, what is open or pressed wears theirs for it; drawings keep their kinds.
    'button[aria-current], button[aria-pressed="true"], a[aria-current]': {
      '@media (forced-colors: active)': {
        forcedColorAdjust: 'none',
        background: 'Highlight !important',
        color: 'HighlightText !important',
      },
    },
    'button[aria-current] *, button[aria-pressed="true"] *': {
      '@media (forced-colors: active)': { color: 'HighlightText !important' },
    },
    'svg[role], canvas': { '@media (forced-colors: active)': { forcedColorAdjust: 'none', background: 'panel' } },
  },
  theme: {
    tokens: {
      fonts: {
        heading: { value: '"Atkinson Hyperlegible Next Variable", sans-serif' },
        body: { value: '"Atkinson Hyperlegible Next Variable", sans-serif' },
      },
      colors: {
        cobalt: {
          50: { value: '#eef3fb' },
          100: { value: '#d6e2f6' },
          200: { value: '#aec6ee' },
          300: { value: '#82a6e3' },
          400: { value: '#5684d4' },
          500: { value: '#3566bd' },
          600: { value: '#254f9e' },
          700: { value: '#1d3f80' },
          800: { value: '#173162' },
          900: { value: '#112449' },
          950: { value: '#0b1830' },
        },
      },
    },
    semanticTokens: {
      colors: {
        page: pair('#f1efe9', '#14171a'),
        panel: pair('#fffefb', '#1d2226'),
        sunk: pair('#e7e4db', '#262c31'),
        rule: pair('#cdc8bb', '#3a4248'),
        edge: pair('#85806f', '#7d8890'),
        ink: pair('#191b1d', '#f1efe8'),
        soft: pair('#55534b', '#b6bcc0'),
        accent: pair('#254f9e', '#9dbcf2'),
        onAccent: pair('#ffffff', '#0b1830'),
        focus: pair('#c2410c', '#ffb468'),
        stop: pair('#a61b1b', '#ff9a8f'),
        stopBg: pair('#fbe3df', '#46201d'),
        warn: pair('#7a4b00', '#f6c367'),
        warnBg: pair('#fbedcd', '#3f3013'),
        note: pair('#2f5168', '#a9cbe0'),
        noteBg: pair('#e2ecf1', '#1f333f'),
        good: pair('#2c6130', '#98d29b'),
        fuel: pair('#d99a2b', '#b67a17'),
        fuelEdge: pair('#8a5a06', '#f2bd5f'),
        metal: pair('#4a4f55', '#b9c0c6'),
        cobalt: {
          solid: pair('#254f9e', '#9dbcf2'),
          contrast: pair('#ffffff', '#0b1830'),
          fg: pair('#254f9e', '#9dbcf2'),
          muted: pair('#d6e2f6', '#1d3f80'),
          subtle: pair('#eef3fb', '#112449'),
          emphasized: pair('#aec6ee', '#254f9e'),
          focusRing: pair('#c2410c', '#ffb468'),
        },
      },
    },
  },
});

const { theme, ...base } = defaultConfig;

/**
 * Chakra without its own palettes, shadows and recipes, none of which the app
 * uses: each page carries them all, and they were a third of it.
 */
const lean = {
  ...base,
  theme: {
    breakpoints: theme!.breakpoints!,
    keyframes: theme!.keyframes!,
    textStyles: theme!.textStyles!,
    recipes: { heading: theme!.recipes!.heading! },
    tokens: {
      ...theme!.tokens,
      colors: {
        white: { value: '#ffffff' },
        black: { value: '#000000' },
        transparent: { value: 'transparent' },
        current: { value: 'currentColor' },
      },
      shadows: {},
    },
    semanticTokens: {
      radii: theme!.semanticTokens!.radii!,
      // What Chakra's own base styles name.
      colors: {
        bg: { value: '{colors.page}' },
        fg: { value: '{colors.ink}', muted: { value: '{colors.soft}' } },
        border: { value: '{colors.rule}' },
      },
    },
  },
};

export const system = createSystem(lean as typeof defaultConfig, config);
