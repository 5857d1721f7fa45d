// The story of a use case as a list that is written like one: each step is a line, alternatives stand under the step they
// leave. Everything is saved at once; the drawing beside it shows the same model.
import { element } from '../frame/dom.js';
import { onRefresh, refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { at, branch, postEdit } from '../frame/server.js';
import { openMenu } from '../canvas/menu.js';
import { startReadThrough } from './read-through.js';
import { askRequirements, dropRequirement } from './step-requirements.js';
import { askTurning } from './turning.js';
import { askFlows } from './story-flows.js';
import { stepMenu } from './story-menu.js';
import { order } from './story-rows.js';
import { StoryDrafts } from './story-drafts.js';
import { Ways } from './story-ways.js';

class StoryList extends StoryDrafts {
  constructor(host) {
    super();
    this.host = host;
    this.useCase = host.dataset.case;
    this.editable = host.dataset.editable === 'true';
    this.list = document.getElementById('story-steps');
    this.state = document.getElementById('story-state');
    this.rows = new Map();
    this.ways = new Ways(this);
    this.list.addEventListener('keydown', (event) => this.onKey(event));
    this.list.addEventListener('focusout', (event) => this.onLeave(event));
    this.list.addEventListener('focusin', (event) => this.onEnter(event));
    this.list.addEventListener('change', (event) => this.onChange(event));
    this.list.addEventListener('click', (event) => this.onClick(event));
  }

  async load() {
    const response = await fetch(at(`element/${this.useCase}/story.json`), {
      headers: { 'X-Requested-With': 'fetch' },
    }).catch(() => null);
    if (response?.ok) {
      this.data = await response.json();
      this.show();
    }
  }

  get steps() {
    return this.data.ways.flatMap((way) => way.steps);
  }

  way(label) {
    return this.data.ways.find((way) => way.label === label);
  }

  wayOf(step) {
    return this.data.ways.find((way) => way.steps.some(({ id }) => id === step));
  }

  // ——— What is seen ———

  show() {
    if (this.editable && !this.steps.length && !this.drafts.length) {
      this.begin({ step: null });
    }
    const wanted = order(this.data, this.drafts);
    const known = this.rows;
    this.rows = new Map();
    for (const row of wanted) {
      const sign = JSON.stringify({ ...row, draft: undefined });
      let made = known.get(row.key);
      if (!made || (made.sign !== sign && !this.isBusy(made))) {
        made = { ...row, sign, node: row.draft?.node ?? this.draw(row) };
      } else if (made.sign !== sign) {
        this.relabel(made, row);
        made = { ...row, sign, node: made.node };
      }
      this.rows.set(row.key, made);
    }
    const focused = document.activeElement;
    [...this.list.children].forEach((node) => {
      if (![...this.rows.values()].some((row) => row.node === node)) {
        node.remove();
      }
    });
    [...this.rows.values()].forEach(({ node }, i) => {
      if (this.list.children[i] !== node) {
        this.list.insertBefore(node, this.list.children[i] ?? null);
      }
    });
    if (this.list.contains(focused) && focused !== document.activeElement) {
      focused.focus({ preventScroll: true });
    }
    this.goal && this.goTo(this.goal);
    this.tell();
    this.ways.show();
  }

  /** Whether somebody types in a row, so that it is not drawn anew. */
  isBusy({ node }) {
    const field = node.querySelector('textarea');
    return field && (field === document.activeElement || field.value !== field.dataset.saved);
  }

  relabel({ node }, row) {
    node.querySelector('.story-label').textContent = row.label;
    node.dataset.depth = row.depth;
  }

  tell() {
    const { uncovered, gaps } = this.data;
    const steps = this.steps.length;
    const parts = [`${steps} ${steps === 1 ? 'step' : 'steps'}`];
    const button = element('button', { type: 'button', className: 'link-act', data: { act: 'requirements' } });
    button.textContent = uncovered ? `${uncovered} without requirement` : steps ? 'every step has a requirement' : '';
    button.disabled = !uncovered || !this.editable;
    this.state.replaceChildren(
      element('span', { className: 'quiet', textContent: parts.join('') }),
      button,
      ...(steps && this.editable ? this.turns(steps) : []),
      ...gaps.map((gap) =>
        element('span', { className: 'gap-words', textContent: gap.sentence, data: { select: gap.element } }),
      ),
    );
    button.onclick = () => askRequirements(this, []);
  }

  /** What is left to turn, and what comes of it. */
  turns(steps) {
    const { toTurn, flows } = this.data;
    const act = (textContent, title, run) => {
      const button = element('button', { type: 'button', className: 'link-act', textContent, title });
      button.addEventListener('click', run);
      return button;
    };
    return [
      ...(toTurn
        ? [act(`${toTurn} to turn`, 'Turn steps into events, functions and messages', () => askTurning(this, []))]
        : []),
      ...(flows
        ? [
            act(
              `${flows} ${flows === 1 ? 'flow' : 'flows'} to make`,
              'Let functions take what is received and give what is sent',
              () => askFlows(this),
            ),
          ]
        : []),
      ...(toTurn < steps
        ? [
            act('State machine', 'Make or extend a first state machine from what is received', () =>
              this.act('states', {}),
            ),
          ]
        : []),
    ];
  }

  // ——— What is done ———

  /** Saves an act; gives the id of what it made or is about, null if it was refused. */
  async act(name, data) {
    const { status, body } = await postEdit(`${branch()}/element/${this.useCase}/story/${name}`, (base) => ({
      ...data,
      base,
    }));
    const isSaved = status === 200 && body.saved;
    say([body.message, body.revision].filter(Boolean).join(' · '), isSaved);
    if (isSaved) {
      refresh();
    }
    return status === 200 ? (body.made?.[0] ?? '') : null;
  }

  goOn(way, value) {
    const step = way.steps.at(-1).id;
    const next = value === 'ends' || value === 'open' ? null : value;
    return value === 'now' ? null : this.act('go-on', { step, next, ends: value === 'ends' });
  }

  goTo(key) {
    const field = this.rows.get(key)?.node.querySelector('textarea, select');
    if (field) {
      this.goal = null;
      field.focus();
      field.setSelectionRange?.(field.value.length, field.value.length);
      field.scrollIntoView({ block: 'nearest' });
    }
  }

  async save(row, field) {
    const text = field.value.trim();
    if (field.readOnly || text === field.dataset.saved) {
      return;
    }
    if (row.type === 'step' && !text) {
      field.value = field.dataset.saved;
      say('A step needs a text; “Remove” in its menu (⋯) takes it away.', false);
      return;
    }
    const before = field.dataset.saved;
    field.dataset.saved = text;
    const done = await (row.type === 'step'
      ? this.act('reword', { step: row.step.id, text })
      : this.act('condition', { way: row.way.label, text, rainy: row.way.kind === 'rainy' }));
    if (done === null) {
      field.dataset.saved = before;
    }
  }

  onLeave(event) {
    const line = event.target.closest('.story-line');
    const row = line && this.rows.get(line.dataset.key);
    if (event.target.matches('textarea') && row && !row.draft) {
      this.save(row, event.target);
    }
    this.isFree = false;
  }

  onEnter(event) {
    const step = event.target.closest('[data-step]')?.dataset.step;
    if (step) {
      this.ways.mark(step);
    }
  }

  onChange({ target }) {
    if (target.dataset.rainy !== undefined) {
      const way = this.way(target.dataset.rainy);
      this.act('condition', { way: way.label, text: way.condition, rainy: target.checked });
    }
  }

  onClick(event) {
    const more = event.target.closest('.row-more');
    if (more) {
      const { left, bottom } = more.getBoundingClientRect();
      openMenu(
        this.host,
        stepMenu(this, this.rows.get(more.closest('.story-line').dataset.key)),
        left - 220,
        bottom + 2,
        more,
      );
    }
  }

  async branch(step) {
    const done = await this.act('branch', { step });
    if (done !== null) {
      await this.load();
      this.goTo(`way ${this.wayOf(step)?.carrier}`);
    }
  }

  async unbranch(step) {
    if ((await this.act('unbranch', { step })) !== null) {
      this.goal = `step ${step}`;
      this.load();
    }
  }

  move(step, by) {
    const { steps } = this.wayOf(step);
    const place = steps.findIndex(({ id }) => id === step) + by;
    if (place < 0 || place >= steps.length) {
      return;
    }
    this.goal = `step ${step}`;
    const behind = by > 0 ? steps[place].id : (steps[place - 1]?.id ?? null);
    this.act('move', { step, behind });
  }

  // ——— Keys ———

  onKey(event) {
    const line = event.target.closest('.story-line');
    const field = event.target;
    if (!line || !field.matches('textarea') || event.isComposing) {
      return;
    }
    const row = this.rows.get(line.dataset.key);
    const draft = this.draftOf(line);
    const handled = this.key(event, row, draft, line, field);
    if (handled) {
      event.preventDefault();
      event.stopPropagation();
    }
  }

  key(event, row, draft, line, field) {
    const { key } = event;
    if (event.altKey && (key === 'ArrowUp' || key === 'ArrowDown')) {
      return row?.step?.own && this.editable && (this.move(row.step.id, key === 'ArrowUp' ? -1 : 1), true);
    }
    if (key === 'ArrowUp' || key === 'ArrowDown') {
      return this.step(line, field, key === 'ArrowUp' ? -1 : 1);
    }
    if (key === 'Escape') {
      this.isFree = true;
      if (draft) {
        this.leave(draft);
      } else {
        field.value = field.dataset.saved;
      }
      return true;
    }
    if (!this.editable || (key === 'Tab' && this.isFree)) {
      return false;
    }
    if (key === 'Enter' && !event.shiftKey) {
      this.enter(row, draft, line, field);
      return true;
    }
    if (key === 'Tab') {
      return this.tab(event.shiftKey, row, draft, line);
    }
    if (key === 'Backspace' && draft && !field.value && !draft.isSaving) {
      this.leave(draft);
      return true;
    }
    return false;
  }

  /** Up and down between the lines, from the first and last line of a text. */
  step(line, field, by) {
    const isAtEdge = by < 0 ? field.selectionStart === 0 : field.selectionEnd === field.value.length;
    if (!isAtEdge && field.value.length > 90) {
      return false;
    }
    const fields = [...this.list.querySelectorAll('.story-line textarea')];
    const next = fields[fields.indexOf(field) + by];
    next?.focus();
    return Boolean(next);
  }

  leave(draft) {
    const back = draft.anchor.step ?? this.steps.at(-1)?.id;
    this.drop(draft);
    this.goal = `step ${back}`;
    this.show();
  }

  enter(row, draft, line, field) {
    if (draft && line === draft.conditionNode) {
      this.goTo(draft.key);
      return;
    }
    if (draft) {
      this.commit(draft);
      return;
    }
    this.save(row, field);
    if (row.type === 'way') {
      this.writeIn(row.way);
    } else if (row.step.own) {
      this.begin({ step: row.step.id });
      this.show();
    }
  }

  /** Behind a condition: its first step, or a line for one. */
  writeIn(way) {
    if (way.steps.length) {
      this.goTo(`step ${way.steps[0].id}`);
    } else {
      this.begin({ step: null }, { mode: 'first', way: way.label });
      this.show();
    }
  }

  tab(isBack, row, draft, line) {
    if (draft) {
      if (line === draft.conditionNode && !isBack) {
        this.goTo(draft.key);
      } else if (isBack) {
        this.outdent(draft);
      } else {
        this.indent(draft);
      }
      return true;
    }
    if (row.type !== 'step' || !row.step.own) {
      return false;
    }
    this.save(row, line.querySelector('textarea'));
    if (isBack) {
      const isAlternative = Boolean(this.wayOf(row.step.id).leaves);
      isAlternative && this.unbranch(row.step.id);
      return isAlternative;
    }
    this.branch(row.step.id);
    return true;
  }
}

export function startStory() {
  const host = document.getElementById('story');
  if (!host) {
    return;
  }
  const story = new StoryList(host);
  host.story = story;
  onRefresh(() => story.load());
  startReadThrough(story);
  dropRequirement(story);
  story.load();
}
