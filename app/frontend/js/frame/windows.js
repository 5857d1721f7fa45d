// Rows that are fetched from the server a window at a time, as they come into sight.

export class Windows {
  /**
   * @param size rows of a window
   * @param fetch gives the window that begins at a row, null if it cannot be had
   * @param take receives a window
   */
  constructor(size, fetch, take) {
    Object.assign(this, { size, fetch, take });
    this.requested = new Set();
  }

  /**
   * Starts over with a first window. Of several starts at once only the last counts.
   *
   * @param first promises a window
   * @return the window; null if it cannot be had or another start came after this one
   */
  async restart(first) {
    const ticket = Symbol('restart');
    this.ticket = ticket;
    const window = await first;
    if (!window || this.ticket !== ticket) {
      return null;
    }
    this.requested = new Set();
    return window;
  }

  /**
   * Fetches the windows that hold rows from first to before last.
   *
   * @param isKnown whether a row is here already
   * @param arrived called after each window that came
   */
  async need(first, last, isKnown, arrived) {
    const { ticket } = this;
    for (let index = first; index < last; index++) {
      const start = Math.floor(index / this.size) * this.size;
      if (isKnown(index) || this.requested.has(start)) {
        continue;
      }
      this.requested.add(start);
      const window = await this.fetch(start);
      if (this.ticket !== ticket) {
        return;
      }
      if (window) {
        this.take(window);
        arrived();
      }
    }
  }
}
