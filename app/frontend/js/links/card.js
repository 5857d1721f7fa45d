// A card with the other ends of the links of a row, while its counts are pointed at or have the focus.
import { at } from '../frame/server.js';
import { element } from '../frame/dom.js';

const DELAY = 220;
const MOST = 12;

let card;
let timer;

function close() {
  clearTimeout(timer);
  card?.remove();
  card = null;
}

async function open(counts) {
  const response = await fetch(at(`links/of.json?element=${counts.dataset.linksOf}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  const links = response?.ok ? await response.json() : [];
  if (!counts.isConnected || !links.length) {
    return;
  }
  card = element(
    'div',
    { className: 'link-card', role: 'tooltip' },
    ...links
      .slice(0, MOST)
      .map((link) =>
        element(
          'p',
          {},
          element('span', { className: 'quiet', textContent: `${link.up ? '↑' : '↓'} ${link.words}` }),
          element(
            'span',
            {},
            ...(link.doubt ? [element('span', { className: 'doubt', textContent: '≠ ' })] : []),
            link.other.label,
          ),
          element('small', { textContent: link.other.text }),
        ),
      ),
    ...(links.length > MOST
      ? [element('p', { className: 'quiet', textContent: `and ${links.length - MOST} more` })]
      : []),
  );
  document.body.append(card);
  const place = counts.getBoundingClientRect();
  card.style.left = `${Math.max(8, Math.min(place.left, innerWidth - card.offsetWidth - 8))}px`;
  card.style.top = `${place.bottom + 6 + card.offsetHeight > innerHeight ? place.top - 6 - card.offsetHeight : place.bottom + 6}px`;
}

function wait(counts) {
  close();
  timer = setTimeout(() => open(counts), DELAY);
}

export function startCards() {
  document.addEventListener('mouseover', (event) => {
    const counts = event.target.closest?.('[data-links-of]');
    if (counts) {
      wait(counts);
    } else if (card || timer) {
      close();
    }
  });
  document.addEventListener('focusin', (event) => {
    const counts = event.target.querySelector?.(':scope > [data-links-of]');
    if (counts) {
      wait(counts);
    } else {
      close();
    }
  });
  document.addEventListener('scroll', close, true);
}
