// The requirements grid: rows in sight only, everything reachable by keyboard, edits in place.
import { branch, postEdit } from '../frame/server.js';
import { onRefresh, refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { isTyping } from '../frame/keys.js';
import { select } from '../frame/thread.js';
import { Asked } from './asked.js';
import { element } from '../frame/dom.js';
import { Columns } from './columns.js';
import { Ahead } from './ahead.js';
import { addAttribute } from './attributes.js';
import { askCondition, drawConditions } from './conditions.js';
import { ask, askAttribute, askColumns } from './dialog.js';
import { drawHead, drawRow } from './drawing.js';
import { edit, editable } from './editor.js';
import { keys } from './keys.js';
import { VirtualList } from '../frame/virtual-list.js';
import { Rows } from './rows.js';
import { pastedRows } from './paste.js';
import { startPointer, startResizing } from './pointer.js';
import { openPicker } from '../links/picker.js';

const TYPED_FOR = 150;

class Grid {
  constructor(host) {
    this.host = host;
    this.body = host.querySelector('.grid-body');
    this.head = host.querySelector('.grid-head');
    this.dialog = host.querySelector('.grid-dialog');
    this.editable = host.dataset.editable === 'true';
    this.attributes = JSON.parse(host.dataset.columns);
    this.columns = new Columns(this.attributes, new URLSearchParams(location.search).get('columns'));
    this.asked = new Asked(host);
    this.rows = new Rows();
    this.cursor = { row: 0, column: 1 };
    this.chosen = new Set();
    this.ahead = null;
    this.toEdit = null;
    this.refusal = '';
    this.does = {};
    this.anchor = 0;
    this.canvas = element('div', { className: 'grid-canvas' });
    this.body.append(this.canvas);
    this.list = new VirtualList({
      viewport: this.body,
      canvas: this.canvas,
      layout: () => this.rows.layout,
      draw: (first, last) => this.draw(first, last),
      refocus: () => this.cell()?.focus({ preventScroll: true }),
    });
    this.query();
  }

  /** Takes what to show from the controls. */
  query() {
    this.rows.query = this.asked.query();
    const { conditions } = this.asked;
    drawConditions(this.host.querySelector('.conditions'), conditions, this.attributes, (dropped) =>
      this.restrict(conditions.filter((each) => each !== dropped)),
    );
    this.describeView();
  }

  /** Shows other rows from the first on, and what is asked in the address. */
  show() {
    this.query();
    this.cursor.row = 0;
    this.load();
    this.asked.keep();
  }

  restrict(conditions) {
    this.asked.conditions = conditions;
    this.show();
  }

  async filter() {
    const condition = await askCondition(this.dialog, this.attributes);
    if (condition) {
      this.restrict([...new Set([...this.asked.conditions, condition])]);
    }
  }

  /** Tells the button that keeps a view what is shown now, and in which columns. */
  describeView() {
    const keep = document.querySelector('[data-save-view]');
    if (keep) {
      keep.dataset.query = String(new URLSearchParams([...this.rows.query, ['columns', this.columns.layout]]));
    }
  }

  /** Of several at once only the last is shown; what is to be landed on or edited waits for it. */
  async load(around) {
    this.landing ??= around;
    const id = this.landing ?? this.toEdit ?? this.rows.get(this.cursor.row)?.id;
    const index = await this.rows.load(this.cursor.row, id);
    if (index === null) {
      return;
    }
    this.cursor.row = index >= 0 ? index : Math.min(this.cursor.row, Math.max(0, this.rows.total - 1));
    const { requirements, total } = this.rows;
    document.querySelector('[data-count]').textContent = `${total ? requirements : 0}`;
    drawHead(this);
    this.render();
    if (!total && document.activeElement === document.body) {
      this.body.focus();
    }
    if (id && this.landing === id && index >= 0) {
      this.landing = null;
      this.goTo(this.cursor.row, 1);
    }
    if (this.toEdit && this.here()?.id === this.toEdit) {
      this.toEdit = null;
      this.edit();
    } else if (this.toEdit && this.toEdit === id && index < 0) {
      this.toEdit = null;
      this.ahead?.refuse('The new line is not among those that are shown. Enter saves its text.', () =>
        this.saveUnseen(id),
      );
    }
  }

  render() {
    this.list.render();
  }

  /** The rows from first to before last; while a cell is edited the rows stay as they are. */
  draw(first, last) {
    if (this.body.querySelector('.editor')) {
      return null;
    }
    const lines = [];
    for (let index = first; index < last; index++) {
      const row = this.rows.get(index);
      if (row) {
        lines.push(drawRow(this, row, index));
      }
    }
    this.body.parentElement.setAttribute('aria-rowcount', String(this.rows.total));
    // Without a row the keys that add the first one need a place to be pressed.
    this.body.tabIndex = this.rows.total ? -1 : 0;
    this.rows.need(first, last, () => this.render());
    return this.rows.total || !this.rows.isLoaded ? lines : [this.asked.nothing(this.editable)];
  }

  /** The column of the cursor in a row: headings and notes have one only. */
  column(index) {
    return this.rows.get(index)?.type === 'requirement'
      ? Math.min(this.cursor.column, this.columns.shown.length - 1)
      : 1;
  }

  cell() {
    return this.canvas.querySelector(
      `[data-index="${this.cursor.row}"] [data-column="${this.column(this.cursor.row)}"]`,
    );
  }

  goTo(row, column = this.cursor.column) {
    this.landing = null;
    this.cursor = {
      row: Math.max(0, Math.min(this.rows.total - 1, row)),
      column: Math.max(0, Math.min(this.columns.shown.length - 1, column)),
    };
    this.list.reveal(this.cursor.row);
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
      return [...this.rows.known]
        .filter(([, row]) => this.chosen.has(row.id))
        .sort(([a], [b]) => a - b)
        .map(([, row]) => row.id)
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
    const ahead = this.ahead?.take();
    this.ahead = null;
    edit(
      this.cell(),
      what,
      `${column?.title ?? 'Text'} of ${row.tag || row.name || 'the note'}`,
      async (saved, key, after) => {
        // At once, so that the next key finds the grid although what was saved is still on its way.
        this.cell()?.focus({ preventScroll: true });
        if (key === 'Tab' || key === 'BackTab') {
          this.goTo(this.cursor.row, this.cursor.column + (key === 'Tab' ? 1 : -1));
        }
        this.replay([...(ahead?.rest ?? []), ...after]);
        if (saved) {
          await refresh();
          say(saved.saved ? `Saved · ${saved.revision}` : saved.message, saved.saved);
        }
      },
      ahead,
    );
  }

  /** Saves the text of a new line that what is shown leaves out. */
  async saveUnseen(id) {
    const { ahead } = this;
    const what = editable({ id, type: ahead.kind, name: '', text: '' }, { key: 'text' });
    const { status, body } = await postEdit(`${branch()}${what.address}`, (base) => ({
      base,
      ...what.body(ahead.field.value, base),
    }));
    if (status === 200) {
      this.ahead = null;
      ahead.close();
      say(`Saved · ${body.revision}`, true);
      this.cell()?.focus({ preventScroll: true });
    } else {
      ahead.refuse(body.message);
    }
  }

  /** Does what was asked for by keys while a new line was on its way. */
  replay(pressed) {
    for (const key of pressed) {
      if (this.ahead) {
        this.ahead.type(key);
      } else {
        keys(this, this.does, { key })?.();
      }
    }
  }

  /** Posts an edit and shows what came of it; goes to what it made. */
  async act(path, make, editing = false) {
    const { status, body } = await postEdit(`${branch()}/requirements/${path}`, make);
    const done = status === 200 && body.saved;
    say(done ? `${body.message} · ${body.revision}` : body.message, done);
    this.refusal = done ? '' : body.message;
    if (done) {
      this.landing = body.made?.[0] ?? this.landing;
      this.toEdit = editing ? body.made?.[0] : null;
      await refresh();
    }
    return done;
  }

  /** The lines an action is about now, with the revision it builds on when its turn has come. */
  some() {
    const ids = this.about();
    return (base) => ({ ids, base });
  }

  add(type, below = false) {
    const anchor = this.here()?.id || this.rows.query.get('spec');
    if (anchor) {
      const send = async () => {
        if (!(await this.act('add', (base) => ({ anchor, below, type, text: '', base }), true))) {
          this.ahead?.refuse(`${this.refusal} Enter tries again, Escape discards it.`);
        }
      };
      this.ahead = new Ahead(this.cell() ?? this.body, type, send, () => {
        this.ahead = null;
        this.cell()?.focus({ preventScroll: true });
      });
      send();
    } else {
      say('Choose a specification to add to, or create one.');
    }
  }

  arrange(how, target = null, ids = this.about()) {
    if (ids.length) {
      this.landing = this.here()?.id;
      this.act('arrange', (base) => ({ lines: { ids, base }, how, target }));
    }
  }

  /** The cursor goes to a row that stays first, so that the next key is about something that is there. */
  async remove() {
    const ids = this.about();
    let stays = this.cursor.row;
    while (stays > 0 && ids.includes(this.rows.get(stays)?.id)) {
      stays--;
    }
    if (ids.length) {
      this.goTo(stays);
      this.chosen.clear();
      await this.act('remove', (base) => ({ ids, base }));
    }
  }

  async setAttribute() {
    const lines = this.some();
    const answer = await askAttribute(this.dialog, this.attributes, this.about().length);
    if (answer) {
      this.act('attribute', (base) => ({ lines: lines(base), attribute: answer.attribute, value: answer.value }));
    }
  }

  async replace() {
    const answer = await ask(
      this.dialog,
      ['Replace in all lines shown', 'Replace in one line'][this.chosen.size] ?? `Replace in ${this.chosen.size} lines`,
      [
        { name: 'find', label: 'Find' },
        { name: 'replace', label: 'Replace with' },
      ],
      'Replace',
    );
    if (answer?.find) {
      const ids = this.chosen.size ? this.about() : await this.everything();
      this.act('replace', (base) => ({ lines: { ids, base }, find: answer.find, replace: answer.replace }));
    }
  }

  /** The ids of all rows there are, in sight or not. */
  async everything() {
    await this.rows.need(0, this.rows.total, () => {});
    return [...this.rows.known.values()].filter((row) => row.id && row.type !== 'group').map((row) => row.id);
  }

  async begin() {
    const answer = await ask(
      this.dialog,
      'New specification',
      [
        { name: 'name', label: 'Name' },
        { name: 'prefix', label: 'Prefix of its ids' },
        { name: 'level', label: 'Level (need, system, subsystem …)' },
      ],
      'Create',
    );
    if (answer) {
      begin(answer);
    }
  }

  /** Rows of a spreadsheet, pasted behind the cursor: a column a text, or an id and a text. */
  paste(text) {
    const rows = pastedRows(text);
    const anchor = this.here()?.id || this.rows.query.get('spec');
    if (rows.length && anchor) {
      this.act('paste', (base) => ({ anchor, rows, base }));
    }
  }

  chooseColumns() {
    const changed = () => {
      this.describeView();
      this.load();
    };
    askColumns(this.dialog, this.columns, changed, this.editable ? () => this.newAttribute() : null);
  }

  /** The page is made anew with the attribute, shown as a column. */
  async newAttribute() {
    const name = await addAttribute(this.dialog);
    if (name) {
      this.columns.showNew(name);
      location.reload();
    }
  }

  link() {
    if (this.about().length) {
      openPicker(this.about());
    }
  }

  async exported() {
    const answer = await ask(
      this.dialog,
      'Export what is shown',
      [
        {
          name: 'format',
          label: 'As',
          input: element(
            'select',
            {},
            element('option', { value: 'csv', textContent: 'CSV' }),
            element('option', { value: 'xlsx', textContent: 'spreadsheet (.xlsx)' }),
          ),
        },
      ],
      'Export',
    );
    if (answer) {
      const query = new URLSearchParams([...this.rows.query, ['columns', this.columns.layout]]);
      location.href = `${branch()}/requirements/export.${answer.format}?${query}`;
    }
  }
}

function actions(grid) {
  return {
    add: () => grid.add('requirement'),
    addBelow: () => grid.add('requirement', true),
    heading: () => grid.add('heading'),
    note: () => grid.add('note'),
    indent: () => grid.arrange('indent'),
    outdent: () => grid.arrange('outdent'),
    up: () => grid.arrange('up'),
    down: () => grid.arrange('down'),
    duplicate: () => grid.about().length && grid.act('duplicate', grid.some()),
    remove: () => grid.remove(),
    setAttribute: () => grid.setAttribute(),
    replace: () => grid.replace(),
    begin: () => grid.begin(),
    link: () => grid.link(),
    exported: () => grid.exported(),
    columns: () => grid.chooseColumns(),
    filter: () => grid.filter(),
  };
}

async function begin(specification) {
  const { status, body } = await postEdit(`${branch()}/requirements/specifications`, (base) => ({
    ...specification,
    base,
  }));
  if (status === 200 && body.saved) {
    location.href = `${branch()}/requirements?spec=${body.made[0]}`;
  } else {
    say(body.message);
  }
}

function startBegin() {
  document.querySelector('form[data-begin]')?.addEventListener('submit', (event) => {
    event.preventDefault();
    begin({ level: '', ...Object.fromEntries(new FormData(event.target)) });
  });
}

/** At the line the address names; else where the reader was before following a link or loading the page again. */
async function loadWhereItWas(grid) {
  const { line, top } = history.state ?? {};
  const named = location.hash.startsWith('#line-') && location.hash.slice(6);
  await grid.load(named || line);
  if (!named && top) {
    grid.body.scrollTop = top;
    grid.render();
  }
  grid.body.addEventListener('scrollend', () =>
    history.replaceState({ ...history.state, top: grid.body.scrollTop }, ''),
  );
}

export function startGrid() {
  startBegin();
  const host = document.getElementById('grid');
  if (!host) {
    return;
  }
  const grid = new Grid(host);
  const does = actions(grid);
  grid.does = does;
  loadWhereItWas(grid);
  onRefresh(() => grid.load());
  document
    .getElementById('work')
    .addEventListener('click', (event) => does[event.target.closest('[data-grid]')?.dataset.grid]?.());
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
    timer = setTimeout(() => grid.show(), TYPED_FOR);
  });
  host
    .querySelector('[data-filter]')
    .addEventListener('keydown', (event) => event.key === 'ArrowDown' && grid.goTo(grid.cursor.row));
  host.addEventListener('change', (event) => {
    const chosen = event.target.closest('[data-choose]');
    if (!chosen) {
      return;
    }
    if (chosen.dataset.choose === 'sort' && event.isTrusted) {
      grid.asked.descending = false;
    }
    grid.show();
  });
  grid.head.addEventListener(
    'click',
    (event) => event.target.dataset.sort && grid.asked.orderBy(event.target.dataset.sort),
  );
  startPointer(grid);
  startResizing(grid);
}
