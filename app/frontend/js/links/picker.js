// The picker: links one or several elements with others that are searched for, or typed or pasted as ids.
import { at, branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { element } from '../frame/dom.js';

const TYPED_FOR = 120;

const json = async (path) => {
  const response = await fetch(at(path), { headers: { 'X-Requested-With': 'fetch' } }).catch(() => null);
  return response?.ok ? response.json() : null;
};

let dialog;

function host() {
  if (!dialog) {
    dialog = element('dialog', { className: 'picker', aria: { label: 'Link with' } });
    document.body.append(dialog);
  }
  return dialog;
}

class Picker {
  constructor(ids, ways) {
    this.ids = ids;
    this.chosen = new Map();
    this.kind = element(
      'select',
      { aria: { label: 'Kind of link' } },
      ...ways.map((way, i) => element('option', { value: String(i), textContent: way.words })),
    );
    this.ways = ways;
    this.search = element('input', {
      type: 'search',
      placeholder: 'Search, or paste ids: MG-1, MG-4',
      autocomplete: 'off',
      aria: { label: 'Search, or ids' },
    });
    this.list = element('div', {
      className: 'picker-list',
      role: 'listbox',
      aria: { label: 'What can be linked', multiselectable: 'true' },
    });
    this.note = element('p', { className: 'quiet small', role: 'status' });
    this.fault = element('p', { className: 'fault', role: 'alert' });
    this.go = element('button', { type: 'button', className: 'act primary', textContent: 'Link' });
    const leave = element('button', { type: 'button', className: 'act', textContent: 'Cancel' });
    const here = ids.length === 1 ? 'This' : `These ${ids.length}`;
    host().replaceChildren(
      element('h2', { textContent: `${here} …` }),
      element('div', { className: 'picker-bar' }, this.kind, this.search),
      this.list,
      this.note,
      this.fault,
      element('div', { className: 'flex gap-2' }, this.go, leave),
    );
    leave.addEventListener('click', () => host().close());
    this.kind.addEventListener('change', () => {
      this.chosen.clear();
      this.load();
    });
    let timer;
    this.search.addEventListener('input', () => {
      clearTimeout(timer);
      timer = setTimeout(() => this.load(), TYPED_FOR);
    });
    this.search.addEventListener('keydown', (event) => {
      if (event.key === 'ArrowDown') {
        event.preventDefault();
        this.list.querySelector('[role="option"]')?.focus();
      } else if (event.key === 'Enter') {
        event.preventDefault();
        this.link();
      }
    });
    this.list.addEventListener('click', (event) => this.toggle(event.target.closest('[role="option"]')));
    this.list.addEventListener('keydown', (event) => this.onKey(event));
    this.go.addEventListener('click', () => this.link());
  }

  get way() {
    return this.ways[Number(this.kind.value)];
  }

  async load() {
    const q = this.search.value.trim();
    const found = await json(
      `links/candidates.json?${new URLSearchParams({ element: this.ids[0], kind: this.way.kind, out: this.way.out, q })}`,
    );
    if (!found || q !== this.search.value.trim()) {
      return;
    }
    // Whoever pastes ids means them.
    if (
      q &&
      found.ends.length &&
      q.split(/[\s,;]+/).filter(Boolean).length === found.ends.length + found.unknown.length &&
      (found.unknown.length || /[-,;]/.test(q))
    ) {
      found.ends.forEach((end) => this.chosen.set(end.id, end));
    }
    const ends = [
      ...[...this.chosen.values()].filter((end) => !found.ends.some(({ id }) => id === end.id)),
      ...found.ends,
    ];
    this.list.replaceChildren(
      ...ends.map((end) =>
        element(
          'div',
          {
            role: 'option',
            tabIndex: -1,
            className: 'picker-end',
            aria: { selected: this.chosen.has(end.id) },
            data: { id: end.id },
          },
          element('span', { className: `kind ${end.family}` }),
          element('span', { className: 'label', textContent: end.label }),
          element('small', { className: 'quiet', textContent: end.text }),
        ),
      ),
    );
    this.ends = new Map(ends.map((end) => [end.id, end]));
    this.fault.textContent = found.unknown.length ? `Nothing has the id ${found.unknown.join(', ')}.` : '';
    this.tell(found.more);
  }

  tell(more = 0) {
    const count = this.chosen.size;
    const chosen = count ? `${count} chosen.` : 'Choose one or several.';
    this.note.textContent = more
      ? `${chosen} ${more} more ${more === 1 ? 'matches' : 'match'}; type to narrow the list.`
      : chosen;
    this.go.textContent = count > 1 ? `Link with ${count}` : 'Link';
    this.go.disabled = count === 0;
  }

  toggle(option) {
    if (option) {
      const { id } = option.dataset;
      if (!this.chosen.delete(id)) {
        this.chosen.set(id, this.ends.get(id));
      }
      option.setAttribute('aria-selected', String(this.chosen.has(id)));
      this.tell();
    }
  }

  onKey(event) {
    const option = event.target.closest('[role="option"]');
    const step = { ArrowDown: 'nextElementSibling', ArrowUp: 'previousElementSibling' }[event.key];
    if (step) {
      event.preventDefault();
      (option[step] ?? this.search).focus();
    } else if (event.key === ' ' || event.key === 'Enter') {
      event.preventDefault();
      this.toggle(option);
      if (event.key === 'Enter') {
        this.link();
      }
    }
  }

  async link() {
    if (!this.chosen.size) {
      return;
    }
    const others = [...this.chosen.keys()];
    const { kind, out } = this.way;
    const message = await makeLinks(kind, out ? this.ids : others, out ? others : this.ids);
    if (message) {
      this.fault.textContent = message;
    } else {
      host().close();
    }
  }
}

/** Makes links and shows what came of it; answers why they were refused, if they were. */
export async function makeLinks(kind, sources, targets) {
  const { status, body } = await postEdit(`${branch()}/links/add`, (base) => ({ kind, sources, targets, base }));
  if (status !== 200) {
    return body.message;
  }
  say(body.saved ? `${body.message} · ${body.revision}` : body.message, body.saved);
  await refresh();
  return null;
}

/** @param first { kind, out } which kind to begin with */
export async function openPicker(ids, first) {
  const ways = await json(`links/ways.json?element=${ids[0]}`);
  if (!ways?.length) {
    say('The link rules allow no links here.');
    return;
  }
  const picker = new Picker(ids, ways);
  const wanted = ways.findIndex((way) => way.kind === first?.kind && way.out === first?.out);
  picker.kind.value = String(Math.max(0, wanted));
  host().showModal();
  await picker.load();
  picker.search.focus();
}

export function startPicker() {
  document.addEventListener('click', (event) => {
    const opener = event.target.closest('[data-link-from]');
    if (opener) {
      openPicker([opener.dataset.linkFrom], { kind: opener.dataset.linkKind, out: opener.dataset.linkOut === 'true' });
    }
    const gone = event.target.closest('[data-unlink]');
    if (gone) {
      const [carrier, source, target] = gone.dataset.unlink.split(' ');
      postEdit(`${branch()}/links/remove`, (base) => ({ links: [{ carrier, source, target }], base })).then(
        async ({ status, body }) => {
          say(
            status === 200 && body.saved ? `${body.message} · ${body.revision}` : body.message,
            status === 200 && body.saved,
          );
          await refresh();
        },
      );
    }
  });
}
