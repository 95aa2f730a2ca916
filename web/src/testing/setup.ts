import { afterEach, beforeEach, vi } from 'vitest';
import { unmountAll } from './mount';

// Files share their modules, so what holds for every test is said here and not where it is used.
afterEach(unmountAll);

// The usual second is too short for a dialog on a loaded machine.
const waitFor = vi.waitFor.bind(vi);
vi.waitFor = ((check: () => unknown, options: object = { timeout: 15_000, interval: 50 }) =>
  waitFor(check, options)) as typeof vi.waitFor;

// Files share one environment: what a browser remembers must not pass from one test to the next.
beforeEach(() => localStorage.clear());
