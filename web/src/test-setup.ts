import '@testing-library/jest-dom/vitest';

// jsdom lays nothing out, so there is nothing to observe.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
