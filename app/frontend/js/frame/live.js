// Keeps a page true: after a change by anybody its regions are fetched anew and replaced, unless somebody types in them.
import { branch, past, person, revision } from './server.js';
import { say } from './notice.js';

const TRY_AGAIN = 1500;
const A_MOMENT = 100;
/** A button that is held longer holds nothing back, ms. */
const LONGEST_PRESS = 2000;

const listeners = new Set();
let waiting = false;
let newest = 0;

/** Calls back after the regions were replaced. */
export function onRefresh(listener) {
  listeners.add(listener);
}

/** Where to find again what has the focus once its region was replaced: by its id, else by the element of the model it stands for. */
function focused() {
  const { activeElement } = document;
  const region = activeElement?.closest('[data-region]');
  if (activeElement?.id) {
    return `#${CSS.escape(activeElement.id)}`;
  }
  return region && activeElement.dataset.select
    ? `#${CSS.escape(region.id)} [data-select="${CSS.escape(activeElement.dataset.select)}"][tabindex]`
    : null;
}

let pressed = false;
addEventListener('pointerdown', () => (pressed = true), true);
['pointerup', 'pointercancel', 'blur'].forEach((end) => addEventListener(end, () => (pressed = false), true));

/** When no button of the mouse is held: what is replaced between press and release never gets the click. */
function released() {
  return pressed
    ? new Promise((resolve) => {
        const done = () => setTimeout(resolve);
        addEventListener('pointerup', done, { once: true, capture: true });
        addEventListener('pointercancel', done, { once: true, capture: true });
        setTimeout(resolve, LONGEST_PRESS);
      })
    : null;
}

/**
 * Fetches this page again and puts the new regions in the place of the old ones. Of several at once only the one asked
 * for last is shown, so that an answer that took its time does not bring back what is past.
 */
export async function refresh() {
  if (document.querySelector('.editor:not(.standing)')) {
    waiting = true;
    return;
  }
  waiting = false;
  document.getElementById('behind').hidden ||= !staysBehind();
  const request = ++newest;
  let response;
  let text;
  try {
    response = await fetch(location.href, { headers: { 'X-Requested-With': 'fetch' } });
    text = await response.text();
  } catch {
    // The server cannot be reached now; what was missed is fetched when it can.
    setTimeout(() => request === newest && refresh(), TRY_AGAIN);
    return;
  }
  if (!response.ok || request !== newest) {
    return;
  }
  const fresh = new DOMParser().parseFromString(text, 'text/html');
  await released();
  if (request !== newest) {
    return;
  }
  const focus = focused();
  for (const region of document.querySelectorAll('[data-region]')) {
    const replacement = fresh.getElementById(region.id);
    if (replacement) {
      region.replaceWith(replacement);
    }
  }
  listeners.forEach((listener) => listener());
  if (focus) {
    document.querySelector(focus)?.focus({ preventScroll: true });
  }
}

let due = 0;
let fetching = false;
let reasons = [];

/**
 * Refreshes once for all that happens within a moment, and not before the page is looked at.
 *
 * @param reason whether there is still a need for it
 */
function soon(reason) {
  reasons.push(reason);
  goOn();
}

function goOn() {
  if (reasons.length && !document.hidden && !fetching) {
    due ||= setTimeout(catchUpOnce, A_MOMENT);
  }
}

async function catchUpOnce() {
  due = 0;
  const needed = reasons.some((reason) => reason());
  reasons = [];
  if (needed) {
    fetching = true;
    await refresh();
    fetching = false;
    goOn();
  }
}

const shown = () => Number(document.getElementById('revision')?.dataset.number ?? 0);

/** Says that this page is behind the newest revision, and offers what changed. */
function fallBehind(number, author) {
  const strip = document.getElementById('behind');
  strip.hidden = false;
  strip.querySelector('strong').textContent = `${author} saved r${number}`;
  strip.querySelector('a').href = `${branch()}/changes/between?from=${revision()}&to=${number}`;
}

/** Whether what the page shows would be lost or is not fetched anew by itself. */
const staysBehind = () =>
  document.querySelector('.editor:not(.standing), .notation-host') !== null ||
  document.querySelector('#work:not([data-region])')?.querySelector('[data-region]') === null;

/** To be called when somebody stops typing: catches up with what was held back. */
export function catchUp() {
  if (waiting) {
    refresh();
  }
}

const runListeners = new Set();

/** Calls back with { id, done, fraction } for every run of this branch. */
export function onRun(listener) {
  runListeners.add(listener);
}

export function startLive() {
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-now]')) {
      const now = new URL(location.href);
      now.searchParams.delete('at');
      location.href = now;
    } else if (event.target.closest('[data-catch-up]')) {
      location.reload();
    }
  });
  if (!branch() || past()) {
    return;
  }
  document.addEventListener('pyrite:saved', refresh);
  document.addEventListener('visibilitychange', goOn);
  listen({ revision: revisionSaved, run: runWentOn, hello });
}

function revisionSaved({ number, author }) {
  if (number > shown()) {
    if (author !== person()) {
      say(`${author} saved r${number}`);
      if (staysBehind()) {
        fallBehind(number, author);
      }
    }
    soon(() => number > shown());
  }
}

function runWentOn(news) {
  runListeners.forEach((listener) => listener(news));
  if (news.done || news.begun) {
    soon(() => true);
  }
}

/** What happened between the making of this page and now, or while the connection was lost, is caught up with. */
function hello({ number }) {
  const behind = () => number !== shown() || document.querySelector('[data-progress]') !== null;
  if (behind()) {
    soon(behind);
  }
}

/** Hears of this page's branch, through the worker that all pages of this browser share where there is such a thing. */
function listen(handlers) {
  if (typeof SharedWorker === 'undefined') {
    const source = new EventSource(`/events?of=${encodeURIComponent(branch().replace('/p/', ''))}`);
    Object.entries(handlers).forEach(([event, handle]) =>
      source.addEventListener(event, ({ data }) => handle(JSON.parse(data))),
    );
    addEventListener('pagehide', () => source.close());
    return;
  }
  const { port } = new SharedWorker('/js/frame/stream.js', { name: 'pyrite' });
  port.onmessage = ({ data: { event, news } }) => handlers[event](news);
  const attend = () => port.postMessage({ listen: branch() });
  attend();
  addEventListener('pagehide', () => port.postMessage({ leave: true }));
  addEventListener('pageshow', attend);
  document.addEventListener('visibilitychange', () => document.hidden || attend());
}
