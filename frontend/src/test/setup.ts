import { cleanup, configure } from '@testing-library/react';
import { afterEach } from 'vitest';

// As the limit of a test: what is awaited is a state, never a speed.
configure({ asyncUtilTimeout: 600_000 });
afterEach(cleanup);
