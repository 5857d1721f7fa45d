// "Find or do…": jumps to an element by its name or id. Ctrl K gets there, arrows choose, Enter goes.
import { branch } from './server.js';

const DELAY = 80;

export function startFind() {
  const input = document.getElementById('find');
  const list = document.getElementById('hits');
  if (!input) {
    return;
  }
  let timer;
  let chosen = 0;

  const choose = (index) => {
    const links = [...list.querySelectorAll('a')];
    chosen = links.length ? (index + links.length) % links.length : 0;
    links.forEach((link, i) => link.setAttribute('aria-selected', String(i === chosen)));
  };

  const render = (hits) => {
    list.replaceChildren(...hits.map((hit) => {
      const link = Object.assign(document.createElement('a'), { href: hit.address, className: 'plain' });
      link.setAttribute('role', 'option');
      const name = Object.assign(document.createElement('span'), { textContent: hit.label });
      const kind = Object.assign(document.createElement('small'), { textContent: `${hit.kind}${hit.where ? ` in ${hit.where}` : ''}` });
      link.append(name, kind);
      return link;
    }));
    if (!hits.length) {
      list.append(Object.assign(document.createElement('p'), { textContent: 'Nothing goes by that name.' }));
    }
    list.hidden = false;
    choose(0);
  };

  const close = () => { list.hidden = true; };

  const search = async () => {
    const wanted = input.value.trim();
    if (!wanted) {
      close();
      return;
    }
    const response = await fetch(`${branch()}/find?q=${encodeURIComponent(wanted)}`, { headers: { 'X-Requested-With': 'fetch' } });
    if (response.ok && input.value.trim() === wanted) {
      render(await response.json());
    }
  };

  input.addEventListener('input', () => {
    clearTimeout(timer);
    timer = setTimeout(search, DELAY);
  });
  input.addEventListener('keydown', (event) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      choose(chosen + (event.key === 'ArrowDown' ? 1 : -1));
    } else if (event.key === 'Enter') {
      list.querySelectorAll('a')[chosen]?.click();
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
