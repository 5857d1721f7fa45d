// The Thread: the selected element between what it comes from and what proves it. T opens and closes it.
import { isTyping } from './keys.js';
import { at } from './server.js';
import { onRefresh } from './live.js';

const OPEN = 'pyrite.thread';
/** What shows that it is selected: rows of tables and boxes of drawings. */
const SELECTED = 'tr, .box, .port, .edge, .line';
let shown;

const panel = () => document.getElementById('thread');

/** In a narrow window it would lie over the work, so that it is opened there on purpose only. */
const isOpen = () => panel().checkVisibility();

async function show() {
  if (!shown || !isOpen()) {
    return;
  }
  const asked = shown;
  const response = await fetch(at(`thread/${asked}`), { headers: { 'X-Requested-With': 'fetch' } }).catch(() => null);
  if (!response) {
    return;
  }
  const content = response.ok ? await response.text() : '<p class="quiet">This element is no longer there.</p>';
  if (asked === shown) {
    panel().innerHTML = content;
  }
}

/** The id of what is selected. */
export const selected = () => shown;

const selectListeners = new Set();

/** Calls back with the id of what was selected, and with who selected it where that was not the page itself. */
export function onSelect(listener) {
  selectListeners.add(listener);
}

export function select(id, origin) {
  if (id !== shown) {
    shown = id;
    mark();
    show();
    selectListeners.forEach((listener) => listener(id, origin));
  }
}

function toggle() {
  const { classList } = document.documentElement;
  if (matchMedia('(max-width: 900px)').matches) {
    classList.toggle('thread-over');
  } else {
    localStorage.setItem(OPEN, String(!classList.toggle('threadless')));
  }
  show();
}

/** Marks again what is selected, after a page has drawn it anew. */
export const remark = () => mark();

function mark() {
  for (const row of document.querySelectorAll('[data-select]')) {
    row.classList.toggle('selected', row.dataset.select === shown && row.matches(SELECTED));
  }
}

export function startThread() {
  if (!panel()) {
    return;
  }
  shown =
    document.querySelector('[data-selected]')?.dataset.selected ??
    document.querySelector('tr[data-select]')?.dataset.select;
  mark();
  show();
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-thread-toggle]')) {
      toggle();
      return;
    }
    const selected = event.target.closest('[data-select]');
    if (selected && !event.target.closest('a, button, input, textarea')) {
      select(selected.dataset.select);
    }
  });
  document.addEventListener('keydown', (event) => {
    if (event.key.toLowerCase() === 't' && !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event)) {
      toggle();
    }
  });
  document.addEventListener('focusin', (event) => {
    const row = event.target.closest('[data-select]');
    if (row?.matches(SELECTED)) {
      select(row.dataset.select);
    }
  });
  onRefresh(() => {
    show();
    mark();
  });
}
