import '@testing-library/jest-dom/vitest';
import { configure } from '@testing-library/svelte';
import { afterEach, beforeAll } from 'vitest';
import { hand } from '../src/frame/hand.svelte';
import { place } from '../src/frame/place.svelte';
import { session } from '../src/frame/session.svelte';

// A busy machine may take long for what a test waits for.
configure({ asyncUtilTimeout: 30_000 });

// jsdom lays nothing out and has no screen, so there is nothing to observe or to ask.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
window.matchMedia ??= (media: string) =>
  Object.assign(new EventTarget(), { matches: false, media }) as MediaQueryList;
HTMLDialogElement.prototype.showModal ??= function () {
  this.open = true;
};
HTMLDialogElement.prototype.close ??= function () {
  this.open = false;
};
Element.prototype.animate ??= function () {
  return Object.assign(new EventTarget(), {
    finished: Promise.resolve(),
    cancel() {},
    onfinish: null,
  }) as unknown as Animation;
};

/** Files of tests share one window, so each finds it as a browser opens it. */
function fresh() {
  sessionStorage.clear();
  localStorage.clear();
  hand.drop();
  place.go('/');
  session.me = null;
  session.known = false;
  session.terms = [];
  session.termsKnown = false;
  session.termId = '';
}
beforeAll(fresh);
afterEach(() => document.body.replaceChildren());
