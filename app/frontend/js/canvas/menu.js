// A menu at a place of the screen: what can be done with what is chosen, each with its key.
import { element } from '../frame/dom.js';

const MARGIN = 8;

/**
 * Opens a menu; arrows choose, Enter does it, Escape leaves.
 *
 * @param items { label, key, run }, or null for a line between groups
 * @param back gets the focus again
 */
export function openMenu(host, items, x, y, back) {
  document.querySelector('.menu.on-canvas')?.remove();
  const menu = element('div', { className: 'menu on-canvas', role: 'menu', aria: { label: 'What is chosen' } });
  const close = () => {
    menu.remove();
    removeEventListener('pointerdown', outside, true);
    back?.focus({ preventScroll: true });
  };
  const outside = (event) => menu.contains(event.target) || close();
  for (const item of items) {
    if (!item) {
      menu.append(element('hr'));
      continue;
    }
    const button = element(
      'button',
      { type: 'button', role: 'menuitem', tabIndex: -1 },
      element('span', { textContent: item.label }),
      element('kbd', { textContent: item.key ?? '' }),
    );
    button.addEventListener('click', () => {
      close();
      item.run();
    });
    menu.append(button);
  }
  menu.addEventListener('keydown', (event) => {
    const buttons = [...menu.querySelectorAll('button')];
    const at = buttons.indexOf(document.activeElement);
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: -1 }[event.key];
    if (next !== undefined) {
      event.preventDefault();
      buttons.at(next % buttons.length).focus();
    } else if (event.key === 'Escape' || event.key === 'Tab') {
      event.preventDefault();
      event.stopPropagation();
      close();
    }
  });
  host.append(menu);
  const frame = host.getBoundingClientRect();
  menu.style.left = `${Math.max(MARGIN, Math.min(x - frame.left, frame.width - menu.offsetWidth - MARGIN))}px`;
  menu.style.top = `${Math.max(MARGIN, Math.min(y - frame.top, frame.height - menu.offsetHeight - MARGIN))}px`;
  menu.querySelector('button')?.focus();
  addEventListener('pointerdown', outside, true);
}
