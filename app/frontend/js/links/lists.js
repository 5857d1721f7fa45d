// Two lists side by side: what is chosen in one is linked with what is chosen in the other, or dragged onto it.
import { goalMark, onDrag } from '../frame/drag.js';
import { at } from '../frame/server.js';
import { onRefresh } from '../frame/live.js';
import { select } from '../frame/thread.js';
import { element } from '../frame/dom.js';
import { makeLinks } from './picker.js';

const TYPED_FOR = 120;
const KEPT = 'pyrite.links.sets';

class List {
  constructor(host, lists) {
    this.host = host;
    this.lists = lists;
    this.side = host.dataset.side;
    this.set = host.querySelector('[data-set]');
    this.search = host.querySelector('input');
    this.list = host.querySelector('[role="listbox"]');
    this.chosen = new Set();
    /** By the ids of elements how they are linked with the one chosen last in the other list. */
    this.linked = new Map();
    let timer;
    this.search.addEventListener('input', () => {
      clearTimeout(timer);
      timer = setTimeout(() => this.load(), TYPED_FOR);
    });
    this.set.addEventListener('change', () => {
      this.chosen.clear();
      localStorage.setItem(`${KEPT}.${this.side}`, this.set.value);
      this.load().then(() => this.lists.suggest());
    });
    this.list.addEventListener('click', (event) => this.toggle(event.target.closest('[role="option"]')));
    this.list.addEventListener('keydown', (event) => this.onKey(event));
  }

  async load() {
    const response = await fetch(
      at(`links/list.json?${new URLSearchParams({ set: this.set.value, q: this.search.value })}`),
      { headers: { 'X-Requested-With': 'fetch' } },
    ).catch(() => null);
    if (!response?.ok) {
      return;
    }
    const { ends, more } = await response.json();
    this.list.replaceChildren(
      ...ends.map((end) => {
        const row = element(
          'div',
          {
            role: 'option',
            tabIndex: 0,
            className: 'picker-end',
            aria: { selected: this.chosen.has(end.id) },
            data: { id: end.id },
          },
          element('span', { className: `kind ${end.family}` }),
          element('span', { className: 'label', textContent: end.label }),
          element('small', { className: 'quiet', textContent: end.text }),
        );
        return row;
      }),
    );
    this.mark();
    if (!ends.length || more) {
      this.list.append(
        element('p', {
          className: 'quiet small p-3',
          textContent: more ? `${more} more; type to narrow them down.` : 'Nothing here.',
        }),
      );
    }
  }

  /** Says of each element how it is linked with the one chosen last in the other list. */
  mark() {
    this.list.querySelectorAll('[role="option"]').forEach((option) => {
      option.querySelector('.linked')?.remove();
      const words = this.linked.get(option.dataset.id);
      if (words) {
        option.append(element('em', { className: 'linked', textContent: words.join(', ') }));
      }
    });
  }

  toggle(option) {
    if (option) {
      const { id } = option.dataset;
      if (!this.chosen.delete(id)) {
        this.chosen.add(id);
        select(id);
        this.lists.look(this.side, id);
      }
      option.setAttribute('aria-selected', String(this.chosen.has(id)));
      this.lists.tell();
    }
  }

  onKey(event) {
    const option = event.target.closest('[role="option"]');
    const step = { ArrowDown: 'nextElementSibling', ArrowUp: 'previousElementSibling' }[event.key];
    if (option && step) {
      event.preventDefault();
      option[step]?.focus();
    } else if (option && (event.key === ' ' || event.key === 'Enter')) {
      event.preventDefault();
      this.toggle(option);
    }
  }
}

class Lists {
  constructor(host) {
    this.host = host;
    this.editable = host.dataset.editable === 'true';
    [this.left, this.right] = [...host.querySelectorAll('.link-list')].map((each) => new List(each, this));
    const options = [...this.left.set.options].map((option) => option.value);
    const kept = (side, otherwise) =>
      options.includes(localStorage.getItem(`${KEPT}.${side}`)) ? localStorage.getItem(`${KEPT}.${side}`) : otherwise;
    this.left.set.value = kept('left', options[1] ?? options[0]);
    this.right.set.value = kept('right', options[0]);
    this.kind = host.querySelector('#link-kind');
    this.fault = host.querySelector('#join-fault');
    this.other = host.querySelector('#join-other');
    this.kind.addEventListener('change', () => this.tell());
    host
      .querySelectorAll('[data-join]')
      .forEach((button) => button.addEventListener('click', () => this.join(button.dataset.join)));
    this.other.addEventListener('click', () => this.link(this.turned.sources, this.turned.targets));
    this.startDragging();
    this.load();
  }

  async load() {
    await Promise.all([this.left.load(), this.right.load()]);
    this.suggest();
    this.tell();
  }

  /** Shows in the other list what an element is linked with. */
  async look(side, id) {
    this.looked = { side, id };
    const response = await fetch(at(`links/of.json?${new URLSearchParams({ element: id })}`), {
      headers: { 'X-Requested-With': 'fetch' },
    }).catch(() => null);
    if (!response?.ok || this.looked.id !== id) {
      return;
    }
    const links = await response.json();
    const other = side === 'left' ? this.right : this.left;
    other.linked = new Map();
    links.forEach(({ other: end, words }) => other.linked.set(end.id, [...(other.linked.get(end.id) ?? []), words]));
    other.mark();
    this.host.querySelector('#link-count').textContent = links.length
      ? `It has ${links.length} ${links.length === 1 ? 'link' : 'links'}; those to the other list are marked there.`
      : 'It has no links yet.';
  }

  /** Begins with a kind that the rules allow between the two lists. */
  async suggest() {
    const [left, right] = [this.left, this.right].map((each) => each.list.querySelector('[role="option"]')?.dataset.id);
    const response =
      left && right
        ? await fetch(at(`links/between.json?${new URLSearchParams({ left, right })}`), {
            headers: { 'X-Requested-With': 'fetch' },
          }).catch(() => null)
        : null;
    const ways = response?.ok ? await response.json() : [];
    if (ways.length && !ways.some((way) => way.kind === this.kind.value)) {
      this.kind.value = ways[0].kind;
      this.tell();
    }
  }

  tell() {
    const [from, to] = [this.left.chosen.size, this.right.chosen.size];
    const chosen = this.kind.selectedOptions[0];
    this.host.querySelector('#join-words').textContent =
      from && to
        ? `${from} at the left ${chosen.textContent} ${to} at the right, or ${chosen.dataset.backward} them`
        : `${from} chosen at the left, ${to} at the right`;
    this.fault.textContent = '';
    this.other.hidden = true;
  }

  join(to) {
    const [left, right] = [[...this.left.chosen], [...this.right.chosen]];
    if (left.length && right.length) {
      this.link(to === 'right' ? left : right, to === 'right' ? right : left);
    } else {
      this.fault.textContent = 'Choose at least one in each list.';
    }
  }

  async link(sources, targets) {
    const message = await makeLinks(this.kind.value, sources, targets);
    this.fault.textContent = message ?? '';
    this.other.hidden = !message?.includes('the other direction');
    this.turned = { sources: targets, targets: sources };
    if (!message) {
      this.left.chosen.clear();
      this.right.chosen.clear();
    }
  }

  /** What is chosen in a list goes along with an option that is chosen. */
  startDragging() {
    const mark = goalMark();
    const optionOf = (target) => target?.closest('[role="option"]') ?? null;
    onDrag(this.host, {
      begin: (event) => {
        const option = this.editable ? optionOf(event.target) : null;
        const list = option?.closest('.link-list') === this.left.host ? this.left : this.right;
        return option && { list, ids: list.chosen.has(option.dataset.id) ? [...list.chosen] : [option.dataset.id] };
      },
      goal: (target, _, dragged) => {
        const option = optionOf(target);
        return option?.closest('.link-list') === dragged.list.host ? null : option;
      },
      show: (option) => mark(option),
      drop: (dragged, option) => this.link(dragged.ids, [option.dataset.id]),
      scroller: (dragged) => (dragged.list === this.left ? this.right : this.left).list,
    });
  }
}

export function startLists() {
  let lists = null;
  const begin = () => {
    const host = document.getElementById('two-lists');
    if (host && host !== lists?.host) {
      const looked = lists?.looked;
      const kept = lists && { kind: lists.kind.value, left: lists.left.search.value, right: lists.right.search.value };
      lists = new Lists(host);
      if (kept) {
        lists.kind.value = kept.kind;
        lists.left.search.value = kept.left;
        lists.right.search.value = kept.right;
        lists.load();
      }
      if (looked) {
        lists.look(looked.side, looked.id);
      }
    }
  };
  begin();
  onRefresh(begin);
}
