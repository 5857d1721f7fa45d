// The matrix: two sets against each other. Only the cells in sight are in the page; arrow keys move, the space bar links.
import { at, branch, postEdit } from '../frame/server.js';
import { RowLayout, VirtualList } from '../frame/virtual-list.js';
import { Windows } from '../frame/windows.js';
import { onRefresh, refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { select } from '../frame/thread.js';
import { element } from '../frame/dom.js';
import { makeLinks } from './picker.js';

const CELL = 34;
const HEAD = 72;
const SIDE = 260;
const SPARE = 6;
const WINDOW = 100;

class Matrix {
  constructor(host, bar) {
    this.host = host;
    this.bar = bar;
    this.cursor = { row: 0, column: 0 };
    this.canvas = element('div', { className: 'matrix-canvas' });
    host.replaceChildren(this.canvas);
    this.total = 0;
    this.lines = new Map();
    this.windows = new Windows(
      WINDOW,
      (from) => this.fetchWindow(from),
      (window) => this.take(window),
    );
    this.list = new VirtualList({
      viewport: host,
      canvas: this.canvas,
      layout: () => RowLayout.uniform(this.total, CELL),
      draw: (first, last) => this.drawRows(first, last),
      spare: SPARE * CELL,
      head: HEAD,
    });
    host.addEventListener('keydown', (event) => this.onKey(event));
    host.addEventListener('click', (event) => this.onClick(event));
    host.addEventListener('mousemove', (event) => this.hover(event));
  }

  get asked() {
    const value = (name) => this.bar().querySelector(`[data-matrix="${name}"]`);
    return {
      rows: value('rows').value,
      columns: value('columns').value,
      kind: value('kind').value,
      implied: value('implied').checked,
    };
  }

  async load() {
    const window = await this.windows.restart(this.fetchWindow(0));
    if (!window) {
      return;
    }
    this.total = window.rows;
    this.columns = window.columns;
    this.lines = new Map();
    this.take(window);
    this.cursor = {
      row: Math.min(this.cursor.row, Math.max(0, this.total - 1)),
      column: Math.min(this.cursor.column, Math.max(0, this.columns.length - 1)),
    };
    this.canvas.style.width = `${SIDE + this.columns.length * CELL}px`;
    document.getElementById('matrix-note').textContent = `${this.total} × ${this.columns.length}`;
    this.render();
  }

  async fetchWindow(from) {
    const response = await fetch(at(`matrix.json?${new URLSearchParams({ ...this.asked, from, count: WINDOW })}`), {
      headers: { 'X-Requested-With': 'fetch' },
    }).catch(() => null);
    return response?.ok ? response.json() : null;
  }

  take(window) {
    window.lines.forEach((heading, i) => {
      const cells = window.cells[i];
      this.lines.set(window.from + i, {
        heading,
        out: new Set(cells.out),
        in: new Set(cells.in),
        implied: new Set(cells.implied),
      });
    });
  }

  render() {
    this.list.render();
  }

  /** The head and the rows from first to before last, of each the cells in sight. */
  drawRows(first, last) {
    if (!this.columns) {
      return null;
    }
    const { scrollLeft, clientWidth } = this.host;
    const columns = [
      Math.max(0, Math.floor(scrollLeft / CELL) - SPARE),
      Math.min(this.columns.length, Math.ceil((scrollLeft + clientWidth) / CELL) + SPARE),
    ];
    const parts = [];
    const corner = element('div', { className: 'matrix-corner' });
    const head = element('div', { className: 'matrix-head', role: 'row' });
    for (let c = columns[0]; c < columns[1]; c++) {
      const cell = element(
        'div',
        {
          className: 'matrix-column',
          role: 'columnheader',
          title: `${this.columns[c].tag} ${this.columns[c].title}`,
          data: { column: c },
        },
        element('span', { textContent: this.columns[c].tag }),
      );
      cell.classList.toggle('here', c === this.cursor.column);
      cell.style.left = `${SIDE + c * CELL}px`;
      head.append(cell);
    }
    head.append(corner);
    for (let r = first; r < last; r++) {
      const line = this.lines.get(r);
      if (line) {
        parts.push(this.draw(line, r, columns));
      }
    }
    this.windows.need(
      first,
      last,
      (row) => this.lines.has(row),
      () => this.render(),
    );
    return [head, ...parts];
  }

  draw(line, r, columns) {
    const row = element('div', { className: 'matrix-row', role: 'row' });
    row.style.top = `${HEAD + r * CELL}px`;
    row.classList.toggle('here', r === this.cursor.row);
    row.append(
      element(
        'div',
        { className: 'matrix-side', role: 'rowheader', title: line.heading.title },
        element('a', {
          className: 'tag',
          href: at(`element/${line.heading.id}`),
          textContent: line.heading.tag,
          tabIndex: -1,
        }),
        element('small', { textContent: line.heading.title }),
      ),
    );
    for (let c = columns[0]; c < columns[1]; c++) {
      const kind = line.out.has(c)
        ? line.in.has(c)
          ? 'both'
          : 'out'
        : line.in.has(c)
          ? 'in'
          : line.implied.has(c)
            ? 'implied'
            : '';
      const words = { out: 'linked', in: 'linked from', both: 'linked both ways', implied: 'implied', '': 'empty' }[
        kind
      ];
      const cell = element('div', {
        className: `matrix-cell ${kind}`,
        role: 'gridcell',
        aria: { label: `${line.heading.tag} ${this.columns[c].tag} ${words}` },
        data: { row: r, column: c },
      });
      if (kind) {
        cell.append(element('i', { className: `matrix-mark ${kind}` }));
      }
      cell.style.left = `${SIDE + c * CELL}px`;
      cell.classList.toggle('cursor', r === this.cursor.row && c === this.cursor.column);
      row.append(cell);
    }
    return row;
  }

  note() {
    const line = this.lines.get(this.cursor.row);
    const column = this.columns[this.cursor.column];
    document.getElementById('matrix-note').textContent = line && column ? `${line.heading.tag} and ${column.tag}` : '';
  }

  go(row, column) {
    this.cursor = {
      row: Math.max(0, Math.min(this.total - 1, row)),
      column: Math.max(0, Math.min(this.columns.length - 1, column)),
    };
    this.list.reveal(this.cursor.row);
    const left = this.cursor.column * CELL;
    const { host } = this;
    if (left < host.scrollLeft) {
      host.scrollLeft = left;
    } else if (left + CELL + SIDE > host.scrollLeft + host.clientWidth) {
      host.scrollLeft = left + CELL + SIDE - host.clientWidth;
    }
    this.render();
    this.note();
  }

  onKey(event) {
    const { row, column } = this.cursor;
    const moves = {
      ArrowDown: [row + 1, column],
      ArrowUp: [row - 1, column],
      ArrowRight: [row, column + 1],
      ArrowLeft: [row, column - 1],
      PageDown: [row + 12, column],
      PageUp: [row - 12, column],
      Home: [row, 0],
      End: [row, this.columns.length - 1],
    };
    if (moves[event.key]) {
      event.preventDefault();
      this.go(...moves[event.key]);
    } else if (event.key === ' ' || event.key === 'Enter') {
      event.preventDefault();
      this.toggle();
    }
  }

  onClick(event) {
    const cell = event.target.closest('.matrix-cell');
    if (cell) {
      this.go(Number(cell.dataset.row), Number(cell.dataset.column));
      this.toggle();
      this.host.focus();
    }
  }

  hover(event) {
    const cell = event.target.closest('.matrix-cell');
    const line = cell && this.lines.get(Number(cell.dataset.row));
    if (line) {
      document.getElementById('matrix-note').textContent =
        `${line.heading.tag} and ${this.columns[Number(cell.dataset.column)].tag}`;
    }
  }

  /** Links the row to the column, or takes the link away that is there. */
  async toggle() {
    const line = this.lines.get(this.cursor.row);
    const column = this.columns[this.cursor.column];
    if (!line || !column || this.host.dataset.editable !== 'true') {
      return;
    }
    select(line.heading.id);
    const { kind } = this.asked;
    if (!line.out.has(this.cursor.column) && !line.in.has(this.cursor.column)) {
      const message = await makeLinks(kind, [line.heading.id], [column.id]);
      if (message) {
        say(message);
      }
      return;
    }
    const links = await (
      await fetch(at(`links/of.json?element=${line.heading.id}`), { headers: { 'X-Requested-With': 'fetch' } })
    ).json();
    const gone = links.filter((link) => link.kind === kind && link.other.id === column.id);
    const { status, body } = await postEdit(`${branch()}/links/remove`, (base) => ({
      links: gone.map(({ carrier, source, target }) => ({ carrier, source, target })),
      base,
    }));
    say(status === 200 ? `${body.message} · ${body.revision}` : body.message, status === 200 && body.saved);
    await refresh();
  }
}

export function startMatrix() {
  const host = document.getElementById('matrix');
  if (!host) {
    return;
  }
  const matrix = new Matrix(host, () => document.getElementById('matrix-bar'));
  matrix.load();
  document.addEventListener('change', (event) => {
    if (event.target.matches('[data-matrix]')) {
      const address = new URL(location.href);
      Object.entries(matrix.asked).forEach(([key, value]) => key !== 'implied' && address.searchParams.set(key, value));
      history.replaceState(null, '', address);
      document.querySelector('[data-export="matrix"]').href = at(`matrix/export.csv${address.search}`);
      matrix.load();
    }
  });
  onRefresh(() => matrix.load());
}
