import { createTheme, type CSSVariablesResolver, type MantineColorsTuple } from '@mantine/core';

const copper: MantineColorsTuple = [
  '#fbf1ea',
  '#f1ddce',
  '#e3bb9e',
  '#d4976b',
  '#c77a43',
  '#b66a33',
  '#9c5220',
  '#874518',
  '#703811',
  '#5a2b0a',
];
const brick: MantineColorsTuple = [
  '#fdeeec',
  '#f8dfdb',
  '#efb8b2',
  '#e68f86',
  '#dd6a5f',
  '#cc4439',
  '#b3261e',
  '#961c15',
  '#79140e',
  '#5d0d08',
];

/** Mantine in the product's own tokens: flat, thin rules, small radius. */
export const theme = createTheme({
  primaryColor: 'copper',
  primaryShade: 6,
  colors: { copper, brick },
  fontFamily: 'var(--sans)',
  fontFamilyMonospace: 'var(--mono)',
  defaultRadius: 3,
  fontSizes: { xs: '12px', sm: '13px', md: '14px', lg: '16px', xl: '18px' },
  headings: { fontFamily: 'var(--sans)', fontWeight: '600' },
  autoContrast: true,
  components: {
    // A symbol beside what it is about stands back.
    ActionIcon: { defaultProps: { variant: 'subtle', color: 'gray', c: 'var(--quiet)' } },
    Button: { defaultProps: { size: 'compact-sm' } },
    TextInput: { defaultProps: { size: 'xs' } },
    // A dialog's head is no second banner of the page.
    Modal: {
      defaultProps: { closeButtonProps: { 'aria-label': 'Close' }, attributes: { header: { role: 'presentation' } } },
      styles: { title: { fontSize: 17, fontWeight: 600 } },
    },
    Select: { defaultProps: { size: 'xs' } },
    Popover: { styles: { dropdown: { background: 'var(--field)', borderColor: 'var(--rule-strong)' } } },
    Menu: { styles: { dropdown: { background: 'var(--field)', borderColor: 'var(--rule-strong)' } } },
  },
});

export const cssVariables: CSSVariablesResolver = () => {
  const shared = {
    '--mantine-color-body': 'var(--paper)',
    '--mantine-color-text': 'var(--ink)',
    '--mantine-color-dimmed': 'var(--quiet)',
    '--mantine-color-default': 'var(--field)',
    '--mantine-color-default-hover': 'var(--tint)',
    '--mantine-color-default-color': 'var(--ink)',
    '--mantine-color-default-border': 'var(--rule-strong)',
    '--mantine-color-disabled': 'var(--tint)',
    '--mantine-color-disabled-color': 'var(--quiet)',
    '--mantine-color-disabled-border': 'var(--rule)',
    '--mantine-color-placeholder': 'var(--quiet)',
    '--mantine-color-error': 'var(--brick)',
    '--mantine-color-anchor': 'var(--copper)',
    '--mantine-color-copper-outline': 'var(--copper)',
    '--mantine-color-copper-light-color': 'var(--copper)',
    '--mantine-color-copper-text': 'var(--copper)',
    '--mantine-color-brick-outline': 'var(--brick)',
  };
  return { variables: {}, light: shared, dark: shared };
};
