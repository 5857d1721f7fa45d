// "Find or do…": jumps to an element by its name or id, or runs a command. Ctrl K gets there, arrows choose, Enter goes.
// What was used last comes first among equals, and alone where nothing is typed yet.
import { at } from './server.js';

const DELAY = 80;
const MOST = 18;
const RECENT = 'pyrite.recent';
const KEPT = 30;

const project = () => document.querySelector('.crumb strong')?.textContent ?? '';

/** What was chosen, the newest first: { label, kind, where, address, project }. */
const recent = () => JSON.parse(localStorage.getItem(RECENT) ?? '[]');

function remember({ label, kind, where, address }) {
  const others = recent().filter((each) => each.label !== label || each.address !== address);
  const item = { label, kind, where, address, project: project() };
  localStorage.setItem(RECENT, JSON.stringify([item, ...others].slice(0, KEPT)));
}

/** What this page can do: its stations, its ways to look, and every button that names its command. */
function commands() {
  const links = [...document.querySelectorAll('.rail a, .views a')].map((link) => ({
    label: link.closest('.rail')
      ? `Go to ${link.textContent.trim()}`
      : `Show ${link.textContent.replace(/\s+/g, ' ').trim()}`,
    kind: 'command',
    where: '',
    address: link.getAttribute('href'),
    run: () => link.click(),
  }));
  const buttons = [...document.querySelectorAll('[data-command]')]
    .filter((button) => !button.disabled)
    .map((button) => ({
      label: button.dataset.command,
      kind: 'command',
      where: button.title.match(/\(([^)]+)\)/)?.[1] ?? '',
      address: '',
      run: () => button.click(),
    }));
  return [...links, ...buttons];
}

const rank = (label, wanted) => {
  const name = label.toLowerCase();
  return name === wanted
    ? 0
    : name.startsWith(wanted)
      ? 1
      : name.includes(` ${wanted}`)
        ? 2
        : name.includes(wanted)
          ? 3
          : 9;
};

/** Elements and commands together, the better match first, then what was used last. */
function ranked(hits, wanted) {
  const used = recent();
  const age = (item) => {
    const place = used.findIndex((each) => each.label === item.label && each.address === item.address);
    return place < 0 ? KEPT : place;
  };
  const sought = wanted.toLowerCase();
  const all = [...hits, ...commands().filter((command) => rank(command.label, sought) < 9)];
  return all
    .map((item, place) => ({ item, rank: rank(item.label, sought) + (item.behind ?? 0), age: age(item), place }))
    .sort((a, b) => a.rank - b.rank || a.age - b.age || a.place - b.place)
    .map(({ item }) => item)
    .slice(0, MOST);
}

/** What was used last and can still be done, for who has typed nothing yet. */
function remembered() {
  const known = commands();
  return recent()
    .map((item) => (item.kind === 'command' ? known.find((each) => each.label === item.label) : item))
    .filter(Boolean)
    .slice(0, MOST);
}

export function startFind() {
  const input = document.getElementById('find');
  const list = document.getElementById('hits');
  if (!input) {
    return;
  }
  let timer;
  let items = [];
  let chosen = 0;
  /** What was typed when the list was made. */
  let asked = '';

  const choose = (index) => {
    chosen = items.length ? (index + items.length) % items.length : 0;
    [...list.querySelectorAll('[role="option"]')].forEach((option, i) =>
      option.setAttribute('aria-selected', String(i === chosen)),
    );
    input.setAttribute('aria-activedescendant', items.length ? `hit-${chosen}` : '');
  };

  const close = () => {
    list.hidden = true;
    input.setAttribute('aria-expanded', 'false');
  };

  const go = (item) => {
    remember(item);
    close();
    input.value = '';
    input.blur();
    if (item.run) {
      item.run();
    } else {
      location.href = item.address;
    }
  };

  const render = (found, empty) => {
    items = found;
    list.replaceChildren(
      ...items.map((item, index) => {
        const option = document.createElement(item.address ? 'a' : 'div');
        Object.assign(option, { className: 'plain hit', id: `hit-${index}` });
        if (item.address) {
          option.href = item.address;
        }
        option.setAttribute('role', 'option');
        const name = Object.assign(document.createElement('span'), { textContent: item.label });
        const kind = Object.assign(document.createElement('small'), {
          textContent:
            item.kind === 'command'
              ? item.where || 'command'
              : `${item.project ? `${item.project} · ` : ''}${item.kind}${item.where ? ` in ${item.where}` : ''}`,
        });
        option.append(name, kind);
        if (item.text) {
          option.append(Object.assign(document.createElement('small'), { className: 'found', textContent: item.text }));
        }
        option.addEventListener('mousedown', (event) => {
          if (event.button === 0 && !event.ctrlKey && !event.metaKey) {
            event.preventDefault();
            go(item);
          }
        });
        return option;
      }),
    );
    if (!items.length) {
      list.append(Object.assign(document.createElement('p'), { textContent: empty }));
    }
    list.hidden = false;
    input.setAttribute('aria-expanded', 'true');
    choose(0);
  };

  const search = async () => {
    const wanted = input.value.trim();
    if (!wanted) {
      asked = wanted;
      render(remembered(), 'Type a name, an id, or what you want to do.');
      return;
    }
    const response = await fetch(at(`find?q=${encodeURIComponent(wanted)}`), {
      headers: { 'X-Requested-With': 'fetch' },
    });
    if (response.ok && input.value.trim() === wanted) {
      asked = wanted;
      render(ranked(await response.json(), wanted), 'Nothing was found.');
    }
  };

  input.addEventListener('input', () => {
    clearTimeout(timer);
    timer = setTimeout(search, DELAY);
  });
  input.addEventListener('focus', search);
  input.addEventListener('keydown', async (event) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      choose(chosen + (event.key === 'ArrowDown' ? 1 : -1));
    } else if (event.key === 'Enter' && !list.hidden) {
      event.preventDefault();
      // Who types quickly means what they typed, not what the list still shows.
      if (asked !== input.value.trim()) {
        clearTimeout(timer);
        await search();
      }
      if (items[chosen]) {
        go(items[chosen]);
      }
    } else if (event.key === 'Escape') {
      close();
      input.blur();
    }
  });
  input.addEventListener('blur', () => setTimeout(close, 150));
  document.addEventListener('keydown', (event) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      input.focus();
      input.select();
    }
  });
}
