import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App';
import './index.css';

// Styles that primitives add at run time carry the page's nonce, or the content policy drops them.
const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce;
if (nonce) setNonce(nonce);

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
