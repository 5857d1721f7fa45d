// The outline: a tree of any size, of which only the rows in sight are in the page. Levels are fetched when they are opened;
// a text or a kind to look for fetches what matches. Rows can be dragged, or picked up with M and put down with M.
import { goalMark, onDrag, placeInRow } from '../frame/drag.js';
import { at, branch, postEdit } from '../frame/server.js';
import { RowLayout, VirtualList } from '../frame/virtual-list.js';
import { onRefresh, refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { select, selected } from '../frame/thread.js';

const ROW = 26;
const SPARE = 12 * ROW;
const TYPED_FOR = 120;
/** So many packages at the top stand open to whoever comes for the first time; of more, none. */
const OPENED_AT_FIRST = 24;

/** A row: { id, depth, leaf, name, keyword, type, family, strong, match }; the rows below an open one follow it. */
class Outline {
  constructor(place) {
    this.place = place;
    this.editable = place.dataset.editable === 'true';
    this.key = `pyrite.outline.open${branch()}`;
    const kept = localStorage.getItem(this.key);
    this.open = new Set(JSON.parse(kept ?? '[]'));
    this.fresh = kept === null;
    this.rows = [];
    this.current = 0;
    this.held = null;
    this.body = document.createElement('div');
    this.place.append(this.body);
    this.list = new VirtualList({
      viewport: place,
      canvas: this.body,
      layout: () => RowLayout.uniform(this.rows.length, ROW),
      draw: (first, last) => this.rows.slice(first, last).map((row, i) => this.draw(row, first + i)),
      refocus: () => this.rowAt(this.current)?.focus({ preventScroll: true }),
      spare: SPARE,
    });
  }

  get looking() {
    return (
      document.getElementById('outline-text').value.trim() !== '' ||
      document.getElementById('outline-kind').value !== ''
    );
  }

  async fetchLines(query) {
    const response = await fetch(at(`architecture/outline.json?${new URLSearchParams(query)}`), {
      headers: { 'X-Requested-With': 'fetch' },
    });
    return response.ok ? response.json() : { lines: [], matches: 0 };
  }

  /** Fetches anew what is shown. Of several at once only the one asked for last counts. */
  async load() {
    const asked = Symbol('asked');
    this.asked = asked;
    const text = document.getElementById('outline-text').value.trim();
    const kind = document.getElementById('outline-kind').value;
    const found = this.looking ? await this.fetchLines({ text, kind }) : { lines: await this.level(), matches: -1 };
    if (this.asked !== asked) {
      return;
    }
    const id = this.rows[this.current]?.id;
    this.rows = found.lines;
    this.current = Math.max(
      0,
      this.rows.findIndex((row) => row.id === id),
    );
    const shown = this.rows.filter((row) => row.match).length;
    const matches = found.matches === 1 ? '1 element matches' : `${found.matches} elements match`;
    this.note(
      found.matches < 0
        ? ''
        : found.matches === 0
          ? 'Nothing matches.'
          : found.matches > shown
            ? `${matches}; the first ${shown} are shown. Type more to narrow it down.`
            : matches,
    );
    if (this.place.dataset.empty === 'true' && !this.rows.length) {
      this.note('The model is empty. A model begins with a package, which holds everything else.');
    }
    this.render();
  }

  note(text) {
    document.getElementById('outline-note').textContent = text;
  }

  /** A level and the open ones within it, from the top or below an element. */
  async level(of) {
    const { lines } = await this.fetchLines(of ? { of } : {});
    if (this.fresh && !of) {
      if (lines.length <= OPENED_AT_FIRST) {
        // Who comes for the design finds it in sight; specifications have a station of their own.
        lines.filter((line) => line.keyword !== 'specification').forEach((line) => this.open.add(line.id));
      }
      this.fresh = false;
    }
    const inner = await Promise.all(
      lines.map((line) => (this.open.has(line.id) && !line.leaf ? this.level(line.id) : [])),
    );
    return lines.flatMap((line, i) => [line, ...inner[i]]);
  }

  isOpen(row) {
    return (
      !row.leaf && (this.looking ? this.rows[this.rows.indexOf(row) + 1]?.depth > row.depth : this.open.has(row.id))
    );
  }

  keepOpen() {
    localStorage.setItem(this.key, JSON.stringify([...this.open]));
  }

  async unfold(index) {
    const row = this.rows[index];
    if (row.leaf || this.isOpen(row) || this.looking) {
      return;
    }
    this.open.add(row.id);
    this.keepOpen();
    const below = await this.level(row.id);
    const place = this.rows.indexOf(row);
    if (place >= 0) {
      this.rows.splice(place + 1, 0, ...below);
      this.render();
    }
  }

  fold(index) {
    const row = this.rows[index];
    if (!this.isOpen(row) || this.looking) {
      return;
    }
    this.open.delete(row.id);
    this.keepOpen();
    let end = index + 1;
    while (end < this.rows.length && this.rows[end].depth > row.depth) {
      end++;
    }
    this.rows.splice(index + 1, end - index - 1);
    this.render();
  }

  render() {
    this.place.setAttribute('aria-rowcount', String(this.rows.length));
    this.list.render();
  }

  rowAt(index) {
    return this.body.querySelector(`[aria-rowindex="${index + 1}"]`);
  }

  draw(row, index) {
    const line = Object.assign(document.createElement('div'), {
      className: 'line',
      tabIndex: index === this.current ? 0 : -1,
    });
    line.setAttribute('role', 'row');
    line.setAttribute('aria-level', String(row.depth + 1));
    line.setAttribute('aria-rowindex', String(index + 1));
    if (!row.leaf) {
      line.setAttribute('aria-expanded', String(this.isOpen(row)));
    }
    line.dataset.select = row.id;
    line.style.top = `${index * ROW}px`;
    line.classList.toggle('selected', row.id === selected());
    line.classList.toggle('held', row.id === this.held);
    line.classList.toggle('quiet', !row.match);
    const name = cell('name');
    name.style.paddingLeft = `${row.depth * 18}px`;
    const fold = Object.assign(document.createElement(row.leaf ? 'span' : 'button'), {
      className: 'fold',
      tabIndex: -1,
    });
    if (!row.leaf) {
      fold.type = 'button';
      fold.setAttribute('aria-label', `Open or close ${row.name}`);
      fold.innerHTML = '<svg class="icon"><use href="/icons.svg#caret-right"></use></svg>';
    }
    const link = Object.assign(document.createElement('a'), {
      href: at(`element/${row.id}`),
      textContent: row.name,
      tabIndex: -1,
      draggable: false,
    });
    link.classList.toggle('font-semibold', row.strong);
    name.append(fold, Object.assign(document.createElement('span'), { className: `kind ${row.family}` }), link);
    line.append(name, cell('keyword', row.keyword), cell('type', row.type));
    return line;
  }

  go(index) {
    this.current = Math.max(0, Math.min(this.rows.length - 1, index));
    this.list.reveal(this.current);
    this.render();
    this.rowAt(this.current)?.focus({ preventScroll: true });
  }

  owner(index) {
    for (let i = index - 1; i >= 0; i--) {
      if (this.rows[i].depth < this.rows[index].depth) {
        return i;
      }
    }
    return index;
  }

  /** Moves an element; the server checks whether it may stand there. */
  async move(id, owner, before) {
    const { status, body } = await postEdit(`${branch()}/element/${id}/move`, (base) => ({ owner, before, base }));
    if (status === 200 && body.saved && owner) {
      this.open.add(owner);
      this.keepOpen();
    }
    say(status === 200 && body.saved ? `Saved · ${body.revision}` : body.message, status === 200 && body.saved);
    await refresh();
  }

  /** Among what has the same owner: 1 down, -1 up. */
  shift(index, step) {
    const row = this.rows[index];
    const owner = this.owner(index);
    const siblings = this.rows.filter(
      (each, i) => each.depth === row.depth && this.owner(i) === (row.depth ? owner : i),
    );
    const mates = row.depth ? siblings : this.rows.filter((each) => each.depth === 0);
    const place = mates.indexOf(row);
    const before = mates[step < 0 ? place - 1 : place + 2];
    if (mates[place + step]) {
      this.move(row.id, row.depth ? this.rows[owner].id : null, before?.id ?? null);
    }
  }

  pickUpOrPutDown(row) {
    if (this.held === null) {
      this.held = row.id;
      this.note(`${row.name} is picked up: go to where it shall be and press M to put it in there, Escape to cancel.`);
    } else {
      const held = this.held;
      this.letGo();
      if (held !== row.id) {
        this.move(held, row.id, null);
      }
    }
    this.render();
  }

  letGo() {
    this.held = null;
    this.note('');
    this.render();
  }
}

function cell(kind, text = '') {
  const made = Object.assign(document.createElement('span'), { className: kind, textContent: text });
  made.setAttribute('role', 'gridcell');
  return made;
}

function onKey(outline, event) {
  const line = event.target.closest('.tree .line');
  if (!line || event.target !== line || event.ctrlKey || event.metaKey) {
    return;
  }
  const index = Number(line.getAttribute('aria-rowindex')) - 1;
  const row = outline.rows[index];
  const page = Math.floor(outline.place.clientHeight / ROW) - 1;
  const moves = event.altKey
    ? { ArrowUp: () => outline.shift(index, -1), ArrowDown: () => outline.shift(index, 1) }
    : {
        ArrowDown: () => outline.go(index + 1),
        ArrowUp: () => outline.go(index - 1),
        Home: () => outline.go(0),
        End: () => outline.go(outline.rows.length - 1),
        PageDown: () => outline.go(index + page),
        PageUp: () => outline.go(index - page),
        ArrowRight: () => (outline.isOpen(row) ? outline.go(index + 1) : outline.unfold(index)),
        ArrowLeft: () =>
          outline.isOpen(row) && !outline.looking ? outline.fold(index) : outline.go(outline.owner(index)),
        Enter: () => line.querySelector('a').click(),
        m: () => outline.editable && outline.pickUpOrPutDown(row),
        Escape: () => outline.letGo(),
      };
  const action = moves[event.key];
  if (action) {
    event.preventDefault();
    action();
  }
}

function startDragging(outline) {
  const mark = goalMark();
  const rowOf = (target) => target?.closest('.tree .line') ?? null;
  onDrag(outline.place, {
    begin: (event) => (event.target.closest('.fold') ? null : (rowOf(event.target)?.dataset.select ?? null)),
    goal: (target, event, dragged) => {
      const line = rowOf(target);
      return line && line.dataset.select !== dragged ? { line, where: placeInRow(line, event) } : null;
    },
    show: (goal) => mark(goal?.line, goal?.where),
    drop: (dragged, goal) => {
      const index = Number(goal.line.getAttribute('aria-rowindex')) - 1;
      const row = outline.rows[index];
      const owner = row.depth ? outline.rows[outline.owner(index)].id : null;
      const next = outline.rows.slice(index + 1).find((each) => each.depth <= row.depth);
      const places = {
        into: [row.id, null],
        before: [owner, row.id],
        behind: [owner, next?.depth === row.depth ? next.id : null],
      };
      outline.move(dragged, ...places[goal.where]);
    },
    scroller: () => outline.place,
  });
}

export function startOutline() {
  const place = document.getElementById('outline');
  if (!place) {
    return;
  }
  const outline = new Outline(place);
  outline.load().then(() => {
    if (!selected() && outline.rows.length) {
      select(outline.rows[0].id);
      outline.render();
    }
  });
  let timer;
  document.getElementById('outline-text').addEventListener('input', () => {
    clearTimeout(timer);
    timer = setTimeout(() => outline.load(), TYPED_FOR);
  });
  document.getElementById('outline-text').addEventListener('keydown', (event) => {
    if (event.key === 'ArrowDown') {
      event.preventDefault();
      outline.go(0);
    }
  });
  document.getElementById('outline-kind').addEventListener('change', () => outline.load());
  place.addEventListener('click', (event) => {
    const line = event.target.closest('.line');
    const index = line ? Number(line.getAttribute('aria-rowindex')) - 1 : -1;
    if (index >= 0 && event.target.closest('.fold')) {
      outline[outline.isOpen(outline.rows[index]) ? 'fold' : 'unfold'](index);
    }
  });
  place.addEventListener('focusin', (event) => {
    const line = event.target.closest('.line');
    if (line) {
      outline.current = Number(line.getAttribute('aria-rowindex')) - 1;
      outline.body.querySelectorAll('.line').forEach((each) => {
        each.tabIndex = each === line ? 0 : -1;
      });
    }
  });
  place.addEventListener('keydown', (event) => onKey(outline, event));
  if (outline.editable) {
    startDragging(outline);
  }
  onRefresh(() => outline.load());
}
