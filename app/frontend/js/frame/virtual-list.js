// A list of any length of which only the rows in sight are in the page.

/** Where rows stand below each other: row i from tops[i] to tops[i + 1], px. */
export class RowLayout {
  /** @param heights of all rows, px */
  static of(heights) {
    const tops = [0];
    for (const height of heights) {
      tops.push(tops.at(-1) + height);
    }
    return new RowLayout(heights.length, (index) => tops[Math.min(index, heights.length)]);
  }

  static uniform(count, height) {
    return new RowLayout(count, (index) => Math.min(index, count) * height);
  }

  constructor(count, top) {
    this.count = count;
    this.top = top;
  }

  get height() {
    return this.top(this.count);
  }

  heightOf(index) {
    return this.top(index + 1) - this.top(index);
  }

  /** The row at a height, by bisection: the last one that begins at it or above it; 0 if there are no rows. */
  at(y) {
    let low = 0;
    let high = this.count - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.top(middle) <= y) {
        low = middle;
      } else {
        high = middle - 1;
      }
    }
    return low;
  }
}

export class VirtualList {
  /**
   * @param viewport the element that scrolls
   * @param canvas the element inside it that holds the rows
   * @param layout gives the current {@link RowLayout}
   * @param draw (first, last) gives the elements of the rows from first to before last; null leaves the rows as they are
   * @param refocus puts the focus back after rows were replaced
   * @param spare how far beyond the viewport rows are drawn, px
   * @param head the height of what stands above the rows and scrolls with them, px
   */
  constructor({ viewport, canvas, layout, draw, refocus = () => {}, spare = 400, head = 0 }) {
    Object.assign(this, { viewport, canvas, layout, draw, refocus, spare, head });
    viewport.addEventListener('scroll', () => this.render());
    new ResizeObserver(() => this.render()).observe(viewport);
  }

  /** The rows to draw, [first, last). */
  range() {
    const layout = this.layout();
    const top = this.viewport.scrollTop;
    const first = layout.at(Math.max(0, top - this.spare));
    const last = Math.min(layout.count, layout.at(top + this.viewport.clientHeight + this.spare) + 1);
    return [first, last];
  }

  render() {
    const rows = this.draw(...this.range());
    if (rows === null) {
      return;
    }
    const focused = this.canvas.contains(document.activeElement);
    this.canvas.style.height = `${this.head + this.layout().height}px`;
    this.canvas.replaceChildren(...rows);
    if (focused) {
      this.refocus();
    }
  }

  /** Scrolls as little as needed for a row to be in sight. */
  reveal(index) {
    const layout = this.layout();
    const { viewport, head } = this;
    const top = layout.top(index);
    const below = top + layout.heightOf(index) + head - viewport.clientHeight;
    if (top < viewport.scrollTop) {
      viewport.scrollTop = top;
    } else if (below > viewport.scrollTop) {
      viewport.scrollTop = below;
    }
  }
}
