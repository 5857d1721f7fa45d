// Keeps a page true: after a change by anybody its regions are fetched anew and replaced, unless somebody types in them.
import { branch, past, person, revision } from './server.js';
import { say } from './notice.js';

const TRY_AGAIN = 1500;

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
  const source = new EventSource(`${branch()}/events`);
  source.addEventListener('revision', (event) => {
    const { number, author } = JSON.parse(event.data);
    const shown = Number(document.getElementById('revision')?.dataset.number ?? 0);
    if (number > shown) {
      if (author !== person()) {
        say(`${author} saved r${number}`);
        if (staysBehind()) {
          fallBehind(number, author);
        }
      }
      refresh();
    }
  });
  source.addEventListener('run', (event) => {
    const news = JSON.parse(event.data);
    runListeners.forEach((listener) => listener(news));
    if (news.done || news.begun) {
      refresh();
    }
  });
  // What happened between the making of this page and now, or while the connection was lost, is caught up with.
  source.addEventListener('hello', (event) => {
    const shown = Number(document.getElementById('revision')?.dataset.number ?? 0);
    if (JSON.parse(event.data).number !== shown || document.querySelector('[data-progress]')) {
      refresh();
    }
  });
  addEventListener('pagehide', () => source.close());
}
