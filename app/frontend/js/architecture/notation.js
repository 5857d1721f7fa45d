// The text of an element in an editor: words coloured, names proposed and explained and faults shown by the server's own
// reader, saved by merging with what others did. It lives in a shadow tree, because there its style sheets need no exception
// from the page's security policy.
import { at, branch, post } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { onSelect, select } from '../frame/thread.js';
import { foldPlacements, folding } from './folding.js';
import { UnsavedText } from './unsaved.js';

const CHECK_AFTER = 350;

const INDENT = '    ';

function theme(cm) {
  const { tags: t } = cm;
  const look = cm.EditorView.theme({
    '&': { height: '100%', fontSize: '12.5px', backgroundColor: '#ffffff', color: '#23262b' },
    '&.cm-focused': { outline: 'none' },
    '.cm-scroller': {
      fontFamily: '"JetBrains Mono", ui-monospace, monospace',
      lineHeight: '1.55',
      fontVariantLigatures: 'none',
    },
    '.cm-foldPlaceholder': { backgroundColor: '#f1ede3', border: 'none', color: '#5d636d', padding: '0 6px' },
    '.cm-gutters': { backgroundColor: '#ffffff', color: '#5d636d', border: 'none' },
    '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: '#faf8f3' },
    '.cm-marked': { backgroundColor: '#eceaf0', boxShadow: 'inset 2px 0 0 #5a5f9e' },
    '.cm-tooltip': {
      backgroundColor: '#ffffff',
      border: '1px solid #ddd6c6',
      borderRadius: '6px',
      fontFamily: '"Hanken Grotesk", system-ui, sans-serif',
    },
    '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: '#eceaf0', color: '#23262b' },
    '.cm-tooltip-autocomplete ul': { fontFamily: '"JetBrains Mono", monospace', fontSize: '12.5px' },
    '.cm-completionDetail': { color: '#5d636d', fontStyle: 'normal', marginLeft: '1.5em' },
    '.meaning': { padding: '8px 12px', maxWidth: '420px', fontSize: '12.5px', lineHeight: '1.45' },
    '.meaning code': { fontFamily: '"JetBrains Mono", monospace', fontSize: '12px', display: 'block' },
    '.meaning small': { color: '#5d636d' },
    '.cm-diagnostic': {
      padding: '6px 12px',
      fontFamily: '"Hanken Grotesk", system-ui, sans-serif',
      fontSize: '12.5px',
      maxWidth: '480px',
    },
    '.cm-diagnostic-error': { borderLeft: '3px solid #c2412d' },
    '.cm-lint-marker-error': {
      content: 'none',
      width: '9px',
      height: '9px',
      margin: '5px 0 0 3px',
      backgroundColor: '#c2412d',
      clipPath: 'polygon(50% 0, 100% 100%, 0 100%)',
    },
    '.cm-diagnostic-hint': { borderLeft: '3px solid #5a5f9e' },
    '.cm-lint-marker-hint': {
      content: 'none',
      width: '9px',
      height: '9px',
      margin: '5px 0 0 3px',
      backgroundColor: '#5a5f9e',
      clipPath: 'circle(50%)',
    },
    '.cm-panels': { backgroundColor: '#f1ede3', color: '#23262b' },
  });
  const colours = cm.HighlightStyle.define([
    { tag: t.keyword, color: '#5a5f9e' },
    { tag: t.comment, color: '#5d636d' },
    { tag: t.string, color: '#7a5a12' },
    { tag: t.number, color: '#1b6b69' },
    { tag: t.unit, color: '#7d4a78' },
    { tag: t.meta, color: '#7a5a12' },
  ]);
  return [look, cm.syntaxHighlighting(colours)];
}

/** Colours by what the lexer of the notation tells apart. */
function language(cm, words) {
  const kept = new Set(words);
  return cm.StreamLanguage.define({
    name: 'notation',
    tokenTable: { unit: cm.tags.unit },
    startState: () => ({ block: false, unit: false }),
    token(stream, state) {
      if (state.block || stream.match('/*')) {
        state.block = !stream.match(/.*?\*\//) && Boolean(stream.skipToEnd() ?? true);
        return 'comment';
      }
      if (stream.match('//')) {
        stream.skipToEnd();
        return 'comment';
      }
      if (stream.match(/'(\\.|[^'\\])*'?/)) {
        return null;
      }
      if (stream.match(/"(\\.|[^"\\])*"?/)) {
        return 'string';
      }
      if (stream.match(/\d+(\.\d+)?([eE][+-]?\d+)?/)) {
        state.number = true;
        return 'number';
      }
      if (stream.eatSpace()) {
        return null;
      }
      const behindNumber = state.number;
      state.number = false;
      if (stream.match('[')) {
        state.unit = behindNumber;
        return null;
      }
      if (stream.match(']')) {
        state.unit = false;
        return null;
      }
      if (stream.match(/[@#][\p{L}_][\p{L}\p{N}_]*/u)) {
        return 'meta';
      }
      const word = stream.match(/[\p{L}_°%][\p{L}\p{N}_°]*/u);
      if (word) {
        return state.unit ? 'unit' : kept.has(word[0]) ? 'keyword' : null;
      }
      stream.next();
      return null;
    },
    languageData: {
      commentTokens: { line: '//', block: { open: '/*', close: '*/' } },
      closeBrackets: { brackets: ['(', '[', '{'] },
    },
  });
}

/** So many faults are told with a link to their lines. */
const LINKED_FAULTS = 3;

class Notation {
  constructor(host, cm, text, base) {
    this.host = host;
    this.cm = cm;
    this.address = `${branch()}/element/${host.dataset.element}/notation`;
    this.mayEdit = host.dataset.editable === 'true';
    this.unsaved = new UnsavedText(this.address, text, base);
    this.places = [];
    this.state = document.getElementById('notation-state');
    this.marked = cm.StateEffect.define();
    const shadow = host.attachShadow({ mode: 'open' });
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(':host > div, .cm-editor { height: 100%; }');
    shadow.adoptedStyleSheets = [sheet];
    const parent = shadow.appendChild(document.createElement('div'));
    this.view = new cm.EditorView({ state: this.editorState(text), parent, root: shadow });
    host.view = this.view;
    this.offerKept();
    this.check();
    onSelect((id, origin) => origin !== this && this.reveal(id));
    onRefresh(() => this.catchUp());
    addEventListener('beforeunload', (event) => this.isChanged() && event.preventDefault());
    document
      .querySelectorAll('[data-notation]')
      .forEach((button) => button.addEventListener('click', () => this[button.dataset.notation]()));
  }

  editorState(doc) {
    const { cm } = this;
    const marks = cm.StateField.define({
      create: () => cm.Decoration.none,
      update: (value, change) =>
        change.effects
          .filter((effect) => effect.is(this.marked))
          .reduce((_, effect) => effect.value, value.map(change.changes)),
      provide: (field) => cm.EditorView.decorations.from(field),
    });
    return cm.EditorState.create({
      doc,
      extensions: [
        cm.lineNumbers(),
        cm.highlightSpecialChars(),
        cm.history(),
        cm.drawSelection(),
        cm.bracketMatching(),
        cm.closeBrackets(),
        cm.highlightActiveLine(),
        cm.EditorView.lineWrapping,
        cm.indentUnit.of(INDENT),
        cm.lintGutter(),
        ...folding(cm),
        cm.search({ top: true }),
        marks,
        ...theme(cm),
        language(cm, this.host.dataset.words.split(' ')),
        cm.autocompletion({ override: [(context) => this.complete(context)], icons: false }),
        cm.hoverTooltip((_, at) => this.explain(at), { hoverTime: 350 }),
        cm.keymap.of([
          { key: 'Mod-s', run: () => this.command('save') },
          { key: 'Alt-f', run: () => this.command('format') },
          { key: 'Alt-g', run: () => this.command('goTo') },
          { key: 'Alt-n', run: () => this.command('rename') },
          ...cm.completionKeymap,
          ...cm.searchKeymap,
          ...cm.historyKeymap,
          ...cm.defaultKeymap,
          cm.indentWithTab,
        ]),
        cm.EditorState.readOnly.of(!this.mayEdit),
        cm.EditorView.contentAttributes.of({ 'aria-label': 'Notation' }),
        cm.EditorView.updateListener.of((update) => this.updated(update)),
      ],
    });
  }

  command(name) {
    this[name]();
    return true;
  }

  get text() {
    return this.view.state.doc.toString();
  }

  isChanged() {
    return this.unsaved.isChanged(this.text);
  }

  updated(update) {
    if (update.docChanged) {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.check(), CHECK_AFTER);
      this.unsaved.keep(this.text);
      this.tell(this.isChanged() ? 'Not saved yet' : '');
    }
    if (update.selectionSet && !update.docChanged && this.view?.hasFocus) {
      const place = this.placeAt(update.state.selection.main.head);
      if (place) {
        select(place.id, this);
      }
    }
  }

  offerKept() {
    const kept = this.mayEdit ? this.unsaved.restore() : null;
    if (!kept) {
      return;
    }
    this.replace(kept.text);
    const panel = document.getElementById('unsaved');
    panel.querySelector('[data-when]').textContent = kept.at
      ? `on ${new Date(kept.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}`
      : 'before';
    panel.querySelector('[data-unsaved="keep"]').onclick = () => {
      panel.hidden = true;
      this.view.focus();
    };
    panel.querySelector('[data-unsaved="drop"]').onclick = async () => {
      if (await this.load(this.text)) {
        panel.hidden = true;
        this.view.focus();
      }
    };
    panel.hidden = false;
  }

  replace(text) {
    this.view.dispatch({ changes: { from: 0, to: this.view.state.doc.length, insert: text } });
  }

  tell(message, isFault = false) {
    this.state.textContent = message;
    this.state.classList.toggle('fault', isFault);
  }

  /** Says how many faults there are, each as a link to its line. */
  tellFaults(faults, more) {
    const count = faults.length + more;
    const button = (className, textContent, run) => {
      const made = Object.assign(document.createElement('button'), { type: 'button', className, textContent });
      made.addEventListener('click', run);
      return made;
    };
    const link = (fault) => [
      button('to-line', `line ${fault.line}: ${fault.message}`, () => this.lookAt(fault.from)),
      ...(this.mayEdit ? (fault.imports ?? []) : []).map((name) =>
        button('act small-act', `Import ${name}`, () => this.bringIn(name)),
      ),
    ];
    this.tell(`${count} ${count === 1 ? 'fault' : 'faults'}: `, true);
    this.state.append(...faults.slice(0, LINKED_FAULTS).flatMap(link));
    if (count > LINKED_FAULTS) {
      this.state.append(`and ${count - LINKED_FAULTS} more`);
    }
  }

  lookAt(place) {
    const at = Math.min(place, this.view.state.doc.length);
    this.view.dispatch({ selection: { anchor: at }, scrollIntoView: true });
    this.view.focus();
  }

  /** Writes an import at the beginning of the outermost body; what has no body cannot import. */
  bringIn(name) {
    const body = this.text.indexOf('{');
    if (body >= 0) {
      this.view.dispatch({ changes: { from: body + 1, insert: `\n    private import ${name};` } });
    }
  }

  ask(what, more = {}) {
    return post(`${this.address}/${what}`, { text: this.text, base: this.unsaved.base, ...more });
  }

  async check() {
    const asked = this.text;
    const { status, body } = await this.ask('check');
    if (asked !== this.text) {
      return;
    }
    if (status !== 200) {
      this.tell(body.message, true);
      return;
    }
    this.places = body.places.sort((a, b) => a.from - b.from);
    this.show(body.faults, body.hints);
    if (body.faults.length) {
      this.tellFaults(body.faults, body.more);
    } else {
      this.tell(this.isChanged() ? 'Not saved yet' : '');
    }
  }

  show(faults, hints = []) {
    const end = this.view.state.doc.length;
    const diagnostic = (severity) => (said) => ({
      from: Math.min(said.from, end),
      to: Math.min(Math.max(said.to, said.from + 1), end),
      severity,
      message: said.message,
      actions: this.mayEdit
        ? (said.imports ?? []).map((name) => ({ name: `Import ${name}`, apply: () => this.bringIn(name) }))
        : [],
    });
    this.view.dispatch(
      this.cm.setDiagnostics(this.view.state, [...faults.map(diagnostic('error')), ...hints.map(diagnostic('hint'))]),
    );
  }

  async complete(context) {
    const before = context.matchBefore(/[\p{L}\p{N}_°]+/u);
    const sign = context.matchBefore(/(\.|::)/);
    if (!before && !sign && !context.explicit) {
      return null;
    }
    const { status, body } = await this.ask('complete', { at: context.pos });
    return status !== 200
      ? null
      : {
          from: before ? before.from : context.pos,
          options: body.proposals.map(({ name, detail }, index) => ({ label: name, detail, boost: -index })),
          validFor: /^[\p{L}\p{N}_°]*$/u,
        };
  }

  async meaning(at) {
    const { status, body } = await this.ask('meaning', { at });
    return status === 200 ? body : null;
  }

  async explain(at) {
    const found = await this.meaning(at);
    if (!found) {
      return null;
    }
    return {
      pos: at,
      create: () => {
        const dom = Object.assign(document.createElement('div'), { className: 'meaning' });
        const line = (tag, textContent) =>
          textContent && dom.append(Object.assign(document.createElement(tag), { textContent }));
        line('small', found.kind);
        line('code', found.declaration);
        line('code', found.value && `= ${found.value}`);
        line('div', found.documentation.slice(0, 240));
        return { dom };
      },
    };
  }

  placeAt(at) {
    return this.places.findLast((place) => place.from <= at);
  }

  /** Shows where an element stands that was selected elsewhere on the page. */
  reveal(id) {
    const place = this.places.find((each) => each.id === id);
    if (!place || place.from > this.view.state.doc.length) {
      return;
    }
    const line = this.view.state.doc.lineAt(place.from);
    const mark = this.cm.Decoration.set([this.cm.Decoration.line({ class: 'cm-marked' }).range(line.from)]);
    this.view.dispatch({
      effects: [this.marked.of(mark), this.cm.EditorView.scrollIntoView(place.from, { y: 'center' })],
    });
  }

  async goTo() {
    const found = await this.meaning(this.view.state.selection.main.head);
    if (found && found.from >= 0) {
      this.view.dispatch({
        selection: { anchor: found.from },
        effects: this.cm.EditorView.scrollIntoView(found.from, { y: 'center' }),
      });
    } else if (found) {
      location.href = found.address;
    } else {
      this.tell('The cursor is on no name');
    }
  }

  /** Gives what stands at the cursor another name, here and wherever it is used. */
  async rename() {
    if (!this.mayEdit) {
      return;
    }
    if (this.isChanged()) {
      this.tell('Save first; renaming reaches every place where the name is used', true);
      return;
    }
    const found = await this.meaning(this.view.state.selection.main.head);
    if (!found) {
      this.tell('The cursor is on no name');
      return;
    }
    const field = document.getElementById('notation-name');
    field.hidden = false;
    field.value = found.name;
    field.focus();
    field.select();
    field.onkeydown = async (event) => {
      if (event.key === 'Enter') {
        const { status, body } = await post(`${branch()}/element/${found.id}/name`, {
          text: field.value,
          base: this.unsaved.base,
        });
        this.tell(status === 200 ? '' : body.message, status !== 200);
        if (status === 200) {
          say(body.saved ? `Saved · ${body.revision}` : body.message, body.saved);
          document.dispatchEvent(new CustomEvent('pyrite:saved'));
        }
      }
      if (event.key === 'Enter' || event.key === 'Escape') {
        field.hidden = true;
        this.view.focus();
      }
    };
  }

  async format() {
    if (!this.mayEdit) {
      return;
    }
    const { status, body } = await this.ask('format');
    if (status === 200 && body.text) {
      this.replace(body.text);
    } else {
      this.show(body.faults ?? []);
      this.tell('A text with faults cannot be formatted', true);
    }
  }

  async save(over = false) {
    if (!this.mayEdit) {
      return;
    }
    const text = this.text;
    const { status, body } = await post(this.address, { text, base: this.unsaved.base, over });
    if (status === 200) {
      document.getElementById('disputed').hidden = true;
      document.getElementById('unsaved').hidden = true;
      await this.load(text);
      say(body.message, body.saved);
      document.dispatchEvent(new CustomEvent('pyrite:saved'));
      return;
    }
    this.show(body.faults ?? []);
    this.tell(body.message, true);
    if (status === 409) {
      this.dispute(body.disputed);
    }
  }

  /** Takes the newest text unless more was typed than {@code written}; returns whether it did. */
  async load(written = this.unsaved.saved) {
    const response = await fetch(`${this.address}.json`, { headers: { 'X-Requested-With': 'fetch' } });
    if (!response.ok) {
      this.tell(
        response.status === 404
          ? 'This element has been removed; your text is still here'
          : 'The newest text cannot be loaded now',
        true,
      );
      return false;
    }
    const newest = await response.json();
    if (!this.unsaved.take(newest, written, this.text)) {
      return false;
    }
    const { text } = newest;
    const at = Math.min(this.view.state.selection.main.head, text.length);
    if (text !== this.text) {
      this.view.dispatch({
        changes: { from: 0, to: this.view.state.doc.length, insert: text },
        selection: { anchor: at },
      });
      foldPlacements(this.cm, this.view);
    }
    this.unsaved.keep(this.text);
    this.check();
    return true;
  }

  /** After a change by anybody: an untouched text follows, a changed one is merged when it is saved. */
  catchUp() {
    if (this.isChanged()) {
      this.tell('The model has changed meanwhile; your text will be merged with it when you save');
    } else {
      this.load();
    }
  }

  /** Shows what both have of the elements that two people changed, and lets this one decide. */
  dispute(elements) {
    const panel = document.getElementById('disputed');
    const rows = elements.map(({ name, theirs, yours }) => {
      const row = document.createElement('tr');
      row.append(
        ...[name, theirs || '(removed)', yours || '(removed)'].map((textContent, index) =>
          Object.assign(document.createElement('td'), { textContent, className: index ? 'mono' : '' }),
        ),
      );
      return row;
    });
    panel.querySelector('tbody').replaceChildren(...rows);
    panel.querySelector('[data-keep="yours"]').onclick = () => this.save(true);
    panel.querySelector('[data-keep="theirs"]').onclick = () => {
      panel.hidden = true;
      this.load(this.text);
    };
    panel.hidden = false;
    panel.scrollIntoView({ block: 'nearest' });
  }
}

export async function startNotation() {
  const host = document.getElementById('notation');
  if (!host) {
    return;
  }
  const [cm, response] = await Promise.all([
    import('/vendor/editor.js'),
    fetch(at(`element/${host.dataset.element}/notation.json`), { headers: { 'X-Requested-With': 'fetch' } }),
  ]);
  const { text, base } = await response.json();
  host.notation = new Notation(host, cm, text, base);
}
