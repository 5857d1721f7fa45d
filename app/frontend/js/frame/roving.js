// A row of buttons or links is one stop of the Tab key; the arrow keys, Home and End go along it. Fields of a row stay
// stops of their own, because the arrow keys are theirs.
import { onRefresh } from './live.js';

const ROWS = '[role="toolbar"], nav.views';

/** The buttons, links and menus of a row that can be gone to. */
function stops(row) {
  return [...row.querySelectorAll('button, a[href], summary')].filter(
    (stop) => !stop.disabled && !stop.closest('.sheet') && stop.getClientRects().length,
  );
}

/** One stop of each row is reached with Tab: where one is, else that of the page, else the first. */
function settle() {
  for (const row of document.querySelectorAll(ROWS)) {
    const all = stops(row);
    const chosen =
      all.find((stop) => stop === document.activeElement) ??
      all.find((stop) => stop.getAttribute('aria-current') === 'page') ??
      all[0];
    all.forEach((stop) => {
      stop.tabIndex = stop === chosen ? 0 : -1;
    });
  }
}

const NEXT = {
  ArrowRight: (at, count) => (at + 1) % count,
  ArrowLeft: (at, count) => (at + count - 1) % count,
  Home: () => 0,
  End: (_, count) => count - 1,
};

export function startRoving() {
  settle();
  onRefresh(settle);
  document.addEventListener('focusin', (event) => {
    if (event.target.closest(ROWS)) {
      settle();
    }
  });
  document.addEventListener('keydown', (event) => {
    const row = event.target.closest(ROWS);
    const go = NEXT[event.key];
    if (!row || !go || event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) {
      return;
    }
    const all = stops(row);
    const at = all.indexOf(event.target);
    if (at >= 0) {
      event.preventDefault();
      event.stopPropagation();
      all[go(at, all.length)].focus();
    }
  });
}
