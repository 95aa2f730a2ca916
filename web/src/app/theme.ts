import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;

/** Paper and ink, one strong accent; light and dark. */
export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  defaults: {
    // One size for one rank: what ends a page, a form or a dialog has the usual size, filled if it is what one came for; tools and
    // what acts on a line of a list are small; only icons within a line are smaller.
    VBtn: { variant: 'outlined', rounded: 'sm' },
    VTextField: { variant: 'outlined', density: 'comfortable' },
    VTextarea: { variant: 'outlined', density: 'comfortable' },
    VCombobox: { variant: 'outlined', density: 'compact' },
    VSelect: { variant: 'outlined', density: 'compact' },
    VAutocomplete: { variant: 'outlined', density: 'compact' },
  },
  theme: {
    cspNonce: nonce,
    defaultTheme: 'paper',
    themes: {
      paper: {
        dark: false,
        colors: {
          background: '#faf7f0',
          surface: '#fffdf8',
          primary: '#0b5a4a',
          secondary: '#5d5a50',
          error: '#8c2f1b',
          warning: '#7a5200',
          info: '#2c4f74',
          success: '#2f5d2a',
          'on-background': '#22241f',
          'on-surface': '#22241f',
        },
      },
      night: {
        dark: true,
        colors: {
          background: '#1b1c19',
          surface: '#23251f',
          primary: '#7cc7b2',
          secondary: '#b3ae9f',
          error: '#f0a08c',
          warning: '#e2bd6a',
          info: '#9fc0e6',
          success: '#a3cf9b',
          'on-background': '#ece7da',
          'on-surface': '#ece7da',
        },
      },
    },
  },
});
