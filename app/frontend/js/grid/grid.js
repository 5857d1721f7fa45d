// The requirements grid: rows in sight only, everything reachable by keyboard, edits in place.
import { branch, post, revision } from '../frame/server.js';
import { onRefresh, refresh } from '../frame/live.js';
import { say } from '../frame/history.js';
import { isTyping } from '../frame/keys.js';
import { select } from '../frame/thread.js';
import { content, element, wide } from './cells.js';
import { Columns } from './columns.js';
import { ask, askAttribute, askColumns } from './dialog.js';
import { edit, editable } from './editor.js';
import { Rows } from './rows.js';
import { pastedRows } from './paste.js';
import { openPicker } from '../links/picker.js';

const SPARE = 400;
const TYPED_FOR = 150;

class Grid {
  constructor(host) {
    this.host = host;
    this.body = host.querySelector('.grid-body');
    this.head = host.querySelector('.grid-head');
    this.dialog = host.querySelector('.grid-dialog');
    this.editable = host.dataset.editable === 'true';
    this.attributes = JSON.parse(host.dataset.columns);
    this.columns = new Columns(this.attributes);
    this.rows = new Rows();
    this.cursor = { row: 0, column: 1 };
    this.chosen = new Set();
    this.anchor = 0;
    this.canvas = element('div', { className: 'grid-canvas' });
    this.body.append(this.canvas);
    this.body.addEventListener('scroll', () => this.render());
    new ResizeObserver(() => this.render()).observe(this.body);
    this.fromAddress();
    this.query();
  }

  /** Sets the controls to what the address asks for, so that a view opens as it was kept. */
  fromAddress() {
    const asked = new URLSearchParams(location.search);
    ['where', 'sort', 'group'].forEach((name) => {
      if (asked.get(name)) {
        this.host.querySelector(`[data-choose="${name}"]`).value = asked.get(name);
      }
    });
    this.host.querySelector('[data-filter]').value = asked.get('q') ?? '';
  }

  /** What to show, from the controls. */
  query() {
    const value = (name) => this.host.querySelector(`[data-choose="${name}"]`)?.value ?? '';
    const query = new URLSearchParams();
    const put = (key, text) => text && query.set(key, text);
    put('spec', value('spec'));
    put('q', this.host.querySelector('[data-filter]').value.trim());
    put('where', value('where'));
    put('show', value('show'));
    put('sort', value('sort'));
    put('group', value('group'));
    this.rows.query = query;
    const keep = document.querySelector('[data-save-view]');
    if (keep) {
      keep.dataset.query = String(query);
    }
  }

  /** Of several at once only the last is shown; what is to be landed on or edited waits for it. */
  async load(around) {
    this.landing ??= around;
    const id = this.landing ?? this.rows.get(this.cursor.row)?.id;
    const index = await this.rows.load(this.cursor.row, id);
    if (index === null) {
      return;
    }
    this.cursor.row = index >= 0 ? index : Math.min(this.cursor.row, Math.max(0, this.rows.total - 1));
    const { requirements, total } = this.rows;
    this.host.querySelector('[data-count]').textContent = total ? `${requirements} ${requirements === 1 ? 'requirement' : 'requirements'}` : 'Nothing here.';
    this.drawHead();
    this.render();
    if (this.landing && index >= 0) {
      this.landing = null;
      this.goTo(this.cursor.row, 1);
    }
    if (this.toEdit && this.here()?.id === this.toEdit) {
      this.toEdit = null;
      this.edit();
    }
  }

  drawHead() {
    this.head.style.gridTemplateColumns = this.columns.template;
    this.head.style.paddingRight = `${28 + this.body.offsetWidth - this.body.clientWidth}px`;
    this.head.replaceChildren(element('span', { role: 'columnheader', aria: { label: 'Chosen' } }), ...this.columns.shown.map((column) => {
      const cell = element('span', { role: 'columnheader', className: column.number ? 'number' : '', textContent: column.title });
      if (column.key !== 'text') {
        const handle = element('i', { className: 'resize', data: { resize: column.key } });
        cell.append(handle);
      }
      return cell;
    }));
  }

  /** Puts the rows in sight into the page, and the focus back to the cell that had it. */
  render() {
    const top = this.body.scrollTop;
    const first = this.rows.at(Math.max(0, top - SPARE));
    const last = Math.min(this.rows.total, this.rows.at(top + this.body.clientHeight + SPARE) + 1);
    if (this.body.querySelector('.editor')) {
      return;
    }
    const focused = this.body.contains(document.activeElement);
    this.canvas.style.height = `${this.rows.height}px`;
    const lines = [];
    for (let index = first; index < last; index++) {
      const row = this.rows.get(index);
      if (row) {
        lines.push(this.draw(row, index));
      }
    }
    this.canvas.replaceChildren(...lines);
    this.body.parentElement.setAttribute('aria-rowcount', String(this.rows.total));
    if (focused) {
      this.cell()?.focus({ preventScroll: true });
    }
    this.rows.need(first, last, () => this.render());
  }

  draw(row, index) {
    const line = element('div', { className: `line ${row.type}`, role: 'row', aria: { rowindex: index + 1, selected: this.chosen.has(row.id) }, data: { index, select: row.id } });
    line.id = row.id && `row-${row.id}`;
    line.draggable = this.editable && row.type !== 'group';
    line.style.top = `${this.rows.top(index)}px`;
    line.style.height = `${this.rows.heightOf(index)}px`;
    line.style.gridTemplateColumns = this.columns.template;
    line.classList.toggle('chosen', this.chosen.has(row.id));
    line.classList.toggle('here', index === this.cursor.row);
    const box = element('span', { className: 'choose', role: 'gridcell' }, element('input', { type: 'checkbox', tabIndex: -1, checked: this.chosen.has(row.id),
      aria: { label: `Choose ${row.tag || row.name || 'the note'}` } }));
    const indent = `${row.depth * 16 + 5}px`;
    if (row.type !== 'requirement') {
      const cell = this.gridCell(index, 1, wide(row));
      cell.classList.add('wide');
      cell.style.paddingLeft = indent;
      line.append(row.type === 'group' ? element('span', { role: 'gridcell' }) : box, cell);
      return line;
    }
    line.append(box, ...this.columns.shown.map((column, i) => {
      const cell = this.gridCell(index, i, content(row, column));
      cell.classList.toggle('number', Boolean(column.number));
      cell.classList.add(`of-${column.key.split(':')[0]}`);
      cell.id = column.key === 'text' ? `text-${row.id}` : '';
      if (i === 0) {
        cell.style.paddingLeft = indent;
      }
      return cell;
    }));
    return line;
  }

  gridCell(index, column, children) {
    const here = index === this.cursor.row && column === this.column(index);
    return element('div', { className: 'cell', role: 'gridcell', tabIndex: here ? 0 : -1, aria: { colindex: column + 1 }, data: { column } }, ...children);
  }

  /** The column of the cursor in a row: headings and notes have one only. */
  column(index) {
    return this.rows.get(index)?.type === 'requirement' ? Math.min(this.cursor.column, this.columns.shown.length - 1) : 1;
  }

  cell() {
    return this.canvas.querySelector(`[data-index="${this.cursor.row}"] [data-column="${this.column(this.cursor.row)}"]`);
  }

  goTo(row, column = this.cursor.column) {
    this.landing = null;
    this.cursor = { row: Math.max(0, Math.min(this.rows.total - 1, row)), column: Math.max(0, Math.min(this.columns.shown.length - 1, column)) };
    const top = this.rows.top(this.cursor.row);
    const height = this.rows.heightOf(this.cursor.row);
    if (top < this.body.scrollTop) {
      this.body.scrollTop = top;
    } else if (top + height > this.body.scrollTop + this.body.clientHeight) {
      this.body.scrollTop = top + height - this.body.clientHeight;
    }
    this.render();
    this.cell()?.focus({ preventScroll: true });
    const at = this.rows.get(this.cursor.row);
    if (at?.type === 'requirement') {
      select(at.id);
    }
    // Who follows a link and comes back finds the same place.
    if (at?.id) {
      history.replaceState({ ...history.state, line: at.id }, '');
    }
  }

  here() {
    return this.rows.get(this.cursor.row);
  }

  /** What an action is about: the chosen rows, or the one the cursor is on. */
  about() {
    if (this.chosen.size) {
      return [...this.rows.known].filter(([, row]) => this.chosen.has(row.id)).sort(([a], [b]) => a - b).map(([, row]) => row.id)
        .concat([...this.chosen].filter((id) => this.rows.indexOf(id) < 0));
    }
    return this.here()?.id ? [this.here().id] : [];
  }

  choose(from, to, on = true) {
    for (let i = Math.min(from, to); i <= Math.max(from, to); i++) {
      const id = this.rows.get(i)?.id;
      if (id) {
        this.chosen[on ? 'add' : 'delete'](id);
      }
    }
    this.render();
  }

  edit() {
    const row = this.here();
    const column = this.columns.shown[this.column(this.cursor.row)];
    const what = row && this.editable ? editable(row, column) : null;
    if (!what) {
      return;
    }
    edit(this.cell(), what, `${column?.title ?? 'Text'} of ${row.tag || row.name || 'the note'}`, async (saved, key) => {
      // At once, so that the next key finds the grid although what was saved is still on its way.
      this.cell()?.focus({ preventScroll: true });
      if (key === 'Tab' || key === 'BackTab') {
        this.goTo(this.cursor.row, this.cursor.column + (key === 'Tab' ? 1 : -1));
      }
      if (saved) {
        await refresh();
        say(saved.saved ? `Saved · ${saved.revision}` : saved.message, saved.saved);
      }
    });
  }

  /** Posts an edit and shows what came of it; goes to what it made. */
  async act(path, data, editing = false) {
    const { status, body } = await post(`${branch()}/requirements/${path}`, data);
    const done = status === 200 && body.saved;
    say(done ? `${body.message} · ${body.revision}` : body.message, done);
    if (done) {
      this.landing = body.made?.[0] ?? this.landing;
      this.toEdit = editing ? body.made?.[0] : null;
      await refresh();
    }
    return done;
  }

  some() {
    return { ids: this.about(), base: revision() };
  }

  add(type, below = false) {
    const anchor = this.here()?.id || this.rows.query.get('spec');
    if (anchor) {
      this.act('add', { anchor, below, type, text: '', base: revision() }, true);
    } else {
      say('Choose a specification to add to, or begin one.');
    }
  }

  arrange(how, target = null, ids = this.about()) {
    if (ids.length) {
      this.landing = this.here()?.id;
      this.act('arrange', { lines: { ids, base: revision() }, how, target });
    }
  }

  /** The cursor goes to a row that stays first, so that the next key is about something that is there. */
  async remove() {
    const data = this.some();
    let stays = this.cursor.row;
    while (stays > 0 && data.ids.includes(this.rows.get(stays)?.id)) {
      stays--;
    }
    if (data.ids.length) {
      this.goTo(stays);
      this.chosen.clear();
      await this.act('remove', data);
    }
  }

  async setAttribute() {
    const answer = await askAttribute(this.dialog, this.attributes, this.about().length);
    if (answer) {
      this.act('attribute', { lines: this.some(), attribute: answer.attribute, value: answer.value });
    }
  }

  async replace() {
    const answer = await ask(this.dialog, this.chosen.size ? `Replace in ${this.chosen.size} lines` : 'Replace in all lines shown', [
      { name: 'find', label: 'Find' }, { name: 'replace', label: 'Put in its place' }], 'Replace');
    if (answer?.find) {
      const ids = this.chosen.size ? this.about() : await this.everything();
      this.act('replace', { lines: { ids, base: revision() }, find: answer.find, replace: answer.replace });
    }
  }

  /** The ids of all rows there are, in sight or not. */
  async everything() {
    await this.rows.need(0, this.rows.total, () => {});
    return [...this.rows.known.values()].filter((row) => row.id && row.type !== 'group').map((row) => row.id);
  }

  async begin() {
    const answer = await ask(this.dialog, 'Begin a specification', [{ name: 'name', label: 'Name' }, { name: 'prefix', label: 'Prefix of its ids' },
      { name: 'level', label: 'Level (need, system, subsystem …)' }], 'Begin');
    if (answer) {
      const { status, body } = await post(`${branch()}/requirements/specifications`, { ...answer, base: revision() });
      if (status === 200 && body.saved) {
        location.href = `${branch()}/requirements?spec=${body.made[0]}`;
      } else {
        say(body.message);
      }
    }
  }

  /** Rows of a spreadsheet, pasted behind the cursor: a column a text, or an id and a text. */
  paste(text) {
    const rows = pastedRows(text);
    const anchor = this.here()?.id || this.rows.query.get('spec');
    if (rows.length && anchor) {
      this.act('paste', { anchor, rows, base: revision() });
    }
  }

  link() {
    if (this.about().length) {
      openPicker(this.about());
    }
  }

  async exported() {
    const answer = await ask(this.dialog, 'Export what is shown', [{ name: 'format', label: 'As', input: element('select', {},
      element('option', { value: 'csv', textContent: 'CSV' }), element('option', { value: 'xlsx', textContent: 'spreadsheet (.xlsx)' })) }], 'Export');
    if (answer) {
      const query = new URLSearchParams(this.rows.query);
      location.href = `${branch()}/requirements/export.${answer.format}?${query}`;
    }
  }
}

function actions(grid) {
  return {
    add: () => grid.add('requirement'), addBelow: () => grid.add('requirement', true), heading: () => grid.add('heading'), note: () => grid.add('note'),
    indent: () => grid.arrange('indent'), outdent: () => grid.arrange('outdent'), up: () => grid.arrange('up'), down: () => grid.arrange('down'),
    duplicate: () => grid.about().length && grid.act('duplicate', grid.some()), remove: () => grid.remove(), setAttribute: () => grid.setAttribute(),
    replace: () => grid.replace(), begin: () => grid.begin(), link: () => grid.link(), exported: () => grid.exported(),
    columns: () => askColumns(grid.dialog, grid.columns, () => grid.load()),
  };
}

function keys(grid, does, event) {
  const { row, column } = grid.cursor;
  const page = Math.max(1, Math.floor(grid.body.clientHeight / 60));
  const extend = (step) => {
    grid.choose(row, row + step);
    grid.goTo(row + step);
  };
  if (event.ctrlKey || event.metaKey) {
    return event.key.toLowerCase() === 'a' ? () => grid.choose(0, grid.rows.total - 1) : event.key === 'Home' ? () => grid.goTo(0) : event.key === 'End' ? () => grid.goTo(grid.rows.total - 1) : null;
  }
  if (event.altKey) {
    return grid.editable ? { ArrowUp: does.up, ArrowDown: does.down, ArrowLeft: does.outdent, ArrowRight: does.indent }[event.key] : null;
  }
  const moves = {
    ArrowDown: () => (event.shiftKey ? extend(1) : grid.goTo(row + 1)), ArrowUp: () => (event.shiftKey ? extend(-1) : grid.goTo(row - 1)),
    ArrowRight: () => grid.goTo(row, column + 1), ArrowLeft: () => grid.goTo(row, column - 1), PageDown: () => grid.goTo(row + page), PageUp: () => grid.goTo(row - page),
    Home: () => grid.goTo(row, 0), End: () => grid.goTo(row, grid.columns.shown.length - 1), ' ': () => grid.choose(row, row, !grid.chosen.has(grid.here()?.id)),
    Escape: () => {
      grid.chosen.clear();
      grid.render();
    },
  };
  const edits = { Enter: () => grid.edit(), F2: () => grid.edit(), n: does.add, N: does.addBelow, h: does.heading, o: does.note, d: does.duplicate, Delete: does.remove,
    s: does.setAttribute, r: does.replace, l: does.link };
  return moves[event.key] ?? (grid.editable ? edits[event.key] : null);
}

function startPointer(grid) {
  const rowOf = (event) => event.target.closest('.grid-canvas .line');
  grid.body.addEventListener('click', (event) => {
    const line = rowOf(event);
    if (!line || event.target.closest('a, .editor')) {
      return;
    }
    const index = Number(line.dataset.index);
    if (event.target.closest('.choose')) {
      const id = grid.rows.get(index).id;
      grid.choose(event.shiftKey ? grid.anchor : index, index, event.shiftKey || !grid.chosen.has(id));
      grid.anchor = index;
      return;
    }
    const column = Number(event.target.closest('[data-column]')?.dataset.column ?? 1);
    const again = index === grid.cursor.row && column === grid.column(index) && document.activeElement?.closest('.grid-body');
    grid.goTo(index, column);
    if (again) {
      grid.edit();
    }
  });
  let dragged = null;
  const clear = () => grid.canvas.querySelectorAll('.before, .behind, .into').forEach((line) => line.classList.remove('before', 'behind', 'into'));
  const place = (event) => {
    const line = rowOf(event);
    const box = line?.getBoundingClientRect();
    const part = box ? (event.clientY - box.top) / box.height : 0;
    return line ? { line, how: part < 0.3 ? 'before' : part > 0.7 ? 'behind' : 'into' } : null;
  };
  grid.body.addEventListener('dragstart', (event) => {
    const id = rowOf(event)?.dataset.select;
    dragged = grid.chosen.has(id) ? grid.about() : [id];
    event.dataTransfer.effectAllowed = 'move';
    event.dataTransfer.setData('text/plain', id);
  });
  grid.body.addEventListener('dragover', (event) => {
    const goal = place(event);
    clear();
    if (dragged && goal && !dragged.includes(goal.line.dataset.select)) {
      event.preventDefault();
      goal.line.classList.add(goal.how);
    }
  });
  grid.body.addEventListener('dragend', clear);
  grid.body.addEventListener('drop', (event) => {
    const goal = place(event);
    clear();
    if (dragged && goal && !dragged.includes(goal.line.dataset.select)) {
      event.preventDefault();
      grid.arrange(goal.how, goal.line.dataset.select, dragged);
    }
    dragged = null;
  });
}

function startResizing(grid) {
  let held = null;
  grid.head.addEventListener('pointerdown', (event) => {
    const key = event.target.dataset?.resize;
    if (key) {
      held = { key, from: event.clientX, width: grid.columns.all.find((column) => column.key === key).width };
      event.target.setPointerCapture(event.pointerId);
    }
  });
  grid.head.addEventListener('pointermove', (event) => {
    if (held) {
      grid.columns.resize(held.key, held.width + event.clientX - held.from);
      grid.head.style.gridTemplateColumns = grid.columns.template;
      grid.canvas.querySelectorAll('.line').forEach((line) => { line.style.gridTemplateColumns = grid.columns.template; });
    }
  });
  grid.head.addEventListener('pointerup', () => { held = null; });
}

function startBegin() {
  document.querySelector('form[data-begin]')?.addEventListener('submit', async (event) => {
    event.preventDefault();
    const fields = Object.fromEntries(new FormData(event.target));
    const { status, body } = await post(`${branch()}/requirements/specifications`, { level: '', ...fields, base: revision() });
    if (status === 200 && body.saved) {
      location.href = `${branch()}/requirements?spec=${body.made[0]}`;
    } else {
      say(body.message);
    }
  });
}

export function startGrid() {
  startBegin();
  const host = document.getElementById('grid');
  if (!host) {
    return;
  }
  const grid = new Grid(host);
  const does = actions(grid);
  grid.load(location.hash.startsWith('#line-') ? location.hash.slice(6) : history.state?.line);
  onRefresh(() => grid.load());
  document.getElementById('work').addEventListener('click', (event) => does[event.target.closest('[data-grid]')?.dataset.grid]?.());
  grid.body.addEventListener('keydown', (event) => {
    const action = isTyping(event) ? null : keys(grid, does, event);
    if (action) {
      event.preventDefault();
      event.stopPropagation();
      action();
    }
  });
  document.addEventListener('keydown', (event) => {
    if (event.key === '/' && !isTyping(event)) {
      event.preventDefault();
      host.querySelector('[data-filter]').focus();
    }
  });
  document.addEventListener('paste', (event) => {
    if (!isTyping(event) && grid.editable && !document.querySelector('dialog[open]')) {
      grid.paste(event.clipboardData.getData('text/plain'));
    }
  });
  let timer;
  host.querySelector('[data-filter]').addEventListener('input', () => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      grid.query();
      grid.load();
    }, TYPED_FOR);
  });
  host.querySelector('[data-filter]').addEventListener('keydown', (event) => event.key === 'ArrowDown' && grid.goTo(grid.cursor.row));
  host.addEventListener('change', (event) => {
    const chosen = event.target.closest('[data-choose]');
    if (!chosen) {
      return;
    }
    grid.query();
    grid.cursor.row = 0;
    grid.load();
    const address = new URL(location.href);
    ['spec', 'show', 'where', 'sort', 'group'].forEach((key) => (grid.rows.query.get(key) ? address.searchParams.set(key, grid.rows.query.get(key)) : address.searchParams.delete(key)));
    history.replaceState(history.state, '', address);
  });
  startPointer(grid);
  startResizing(grid);
}
