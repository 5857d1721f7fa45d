// The rows of the grid: their number and types are known at once, their contents are fetched a window at a time.
import { say } from '../frame/notice.js';
import { at } from '../frame/server.js';
import { RowLayout } from '../frame/virtual-list.js';
import { Windows } from '../frame/windows.js';

const WINDOW = 120;
/** Heights by the letter that the server gives for the type of a row, px. */
const HEIGHTS = { h: 36, r: 58, n: 44, g: 34 };

export class Rows {
  constructor() {
    this.query = new URLSearchParams();
    this.isLoaded = false;
    this.windows = new Windows(
      WINDOW,
      (from) => this.fetchWindow(from),
      (window) => this.take(window),
    );
    this.clear();
  }

  clear() {
    this.known = new Map();
    this.layout = RowLayout.of([]);
    this.requirements = 0;
  }

  get total() {
    return this.layout.count;
  }

  /** Fetches all anew, first what is near a row or an element. Returns the index of the element, -1 if it is not there. */
  async load(from, around) {
    const window = await this.windows.restart(this.fetchWindow(Math.max(0, from - WINDOW / 2), around));
    if (!window) {
      return null;
    }
    this.clear();
    this.layout = RowLayout.of([...window.spine].map((letter) => HEIGHTS[letter]));
    this.requirements = window.requirements;
    this.take(window);
    this.isLoaded = true;
    return window.index;
  }

  async fetchWindow(from, around) {
    const query = new URLSearchParams(this.query);
    query.set('from', from);
    query.set('count', WINDOW);
    if (around) {
      query.set('around', around);
    }
    const response = await fetch(at(`requirements/rows.json?${query}`), {
      headers: { 'X-Requested-With': 'fetch' },
    }).catch(() => null);
    if (response?.status === 404) {
      say((await response.json()).detail);
    }
    return response?.ok ? response.json() : null;
  }

  take(window) {
    window.rows.forEach((row, i) => this.known.set(window.from + i, row));
  }

  /** Fetches rows that are not here yet; calls back when some have arrived. */
  need(first, last, arrived) {
    return this.windows.need(first, last, (index) => this.known.has(index), arrived);
  }

  get(index) {
    return this.known.get(index);
  }

  indexOf(id) {
    for (const [index, row] of this.known) {
      if (row.id === id) {
        return index;
      }
    }
    return -1;
  }
}
