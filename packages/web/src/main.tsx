import { orThrow } from '@roof-chart/core/collections/orThrow';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@mantine/spotlight/styles.css';
import './ui/theme/fonts.css';
import './ui/theme/tokens.css';
import { App } from './app/App';
import { createStore } from './state/store';
import { cssVariables, theme } from './ui/theme/theme';

const nonce = document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content ?? '';
// The scroll lock of dialogs adds a style sheet and reads its nonce here.
setNonce(nonce);

createRoot(orThrow(document.getElementById('root'), 'root element')).render(
  <StrictMode>
    <MantineProvider theme={theme} cssVariablesResolver={cssVariables} defaultColorScheme="auto" getStyleNonce={() => nonce}>
      <Notifications position="bottom-left" autoClose={8000} limit={4} />
      <Provider store={createStore()}>
        <App />
      </Provider>
    </MantineProvider>
  </StrictMode>,
);
