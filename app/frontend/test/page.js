// A page for scripts under test: a document of jsdom and a server that answers from a function.
import { JSDOM } from 'jsdom';

const NAMES = [
  'document',
  'location',
  'history',
  'localStorage',
  'Event',
  'CustomEvent',
  'KeyboardEvent',
  'MouseEvent',
  'FormData',
  'DOMParser',
  'addEventListener',
  'removeEventListener',
  'getSelection',
  'getComputedStyle',
];

/** Makes the globals of a page that shows a branch at revision 5. Returns its window. */
export function openPage(body = '', address = 'http://pyrite.test/p/merrow/main/requirements') {
  const head = '<meta name="pyrite-branch" content="/p/merrow/main"><meta name="csrf-header" content="X-CSRF">';
  const revision = '<span id="revision" data-number="5"></span><div id="saved" hidden></div><div id="behind"></div>';
  const { window } = new JSDOM(`<head>${head}</head><body>${revision}${body}</body>`, { url: address });
  for (const name of NAMES) {
    const value = window[name];
    const isFunction = ['addEventListener', 'removeEventListener', 'getSelection', 'getComputedStyle'].includes(name);
    Object.defineProperty(globalThis, name, {
      value: isFunction ? value.bind(window) : value,
      configurable: true,
      writable: true,
    });
  }
  globalThis.ResizeObserver = class {
    observe() {}
  };
  globalThis.requestAnimationFrame = (run) => setTimeout(run);
  globalThis.cancelAnimationFrame = clearTimeout;
  globalThis.CSS = { escape: (text) => text };
  return window;
}

/** Lets fetch be answered by (address, options) => { status, body } or a promise of it. */
export function answerWith(answer) {
  globalThis.fetch = async (address, options = {}) => {
    const { status = 200, body = {} } = await answer(String(address), options);
    return {
      ok: status < 300,
      status,
      headers: new Map([['Content-Type', 'application/json']]),
      text: async () => (typeof body === 'string' ? body : JSON.stringify(body)),
      json: async () => body,
    };
  };
}

/** A promise with its resolve function, for answers that come later. */
export const later = () => Promise.withResolvers?.() ?? promiseWithResolve();

function promiseWithResolve() {
  const made = {};
  made.promise = new Promise((resolve) => {
    made.resolve = resolve;
  });
  return made;
}
