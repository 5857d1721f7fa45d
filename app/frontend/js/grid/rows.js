// The rows of the grid: how many there are and of what type is known at once, what stands in them is fetched a window at a time.
import { at } from '../frame/server.js';
import { say } from '../frame/history.js';

const WINDOW = 120;
const HEIGHTS = { h: 36, r: 58, n: 44, g: 34 };

export class Rows {
  constructor() {
    this.clear();
    this.query = new URLSearchParams();
    this.isLoaded = false;
  }

  clear() {
    this.known = new Map();
    this.asked = new Set();
    this.tops = [0];
    this.total = 0;
    this.requirements = 0;
  }

  /** Fetches anew from a row on, or around an element. Answers the index of that element, -1 if it is not among the rows. */
  async load(from, around) {
    const ticket = Symbol('load');
    this.ticket = ticket;
    const window = await this.fetchWindow(Math.max(0, from - WINDOW / 2), around);
    if (this.ticket !== ticket || !window) {
      return null;
    }
    this.clear();
    this.total = window.total;
    this.requirements = window.requirements;
    this.tops = [0];
    for (const letter of window.spine) {
      this.tops.push(this.tops.at(-1) + HEIGHTS[letter]);
    }
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

  /** Sees to it that some rows are here; calls back when more have come. */
  async need(first, last, arrived) {
    for (let index = first; index < last; index++) {
      const start = Math.floor(index / WINDOW) * WINDOW;
      if (!this.known.has(index) && !this.asked.has(start)) {
        this.asked.add(start);
        const ticket = this.ticket;
        const window = await this.fetchWindow(start);
        if (window && this.ticket === ticket) {
          this.take(window);
          arrived();
        }
      }
    }
  }

  get(index) {
    return this.known.get(index);
  }

  get height() {
    return this.tops.at(-1);
  }

  top(index) {
    return this.tops[index] ?? 0;
  }

  heightOf(index) {
    return (this.tops[index + 1] ?? this.height) - this.top(index);
  }

  /** The row at a height, by halving. */
  at(y) {
    let low = 0;
    let high = this.total - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.tops[middle] <= y) {
        low = middle;
      } else {
        high = middle - 1;
      }
    }
    return Math.max(0, low);
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
