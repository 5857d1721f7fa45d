// What belongs together at the ends of an interface definition, and flows made where a connection allows them.
import { save } from '../frame/saving.js';
import { refresh } from '../frame/live.js';

async function pair(table) {
  const pairs = Object.fromEntries(
    [...table.querySelectorAll('[data-pair]')].map((row) => [row.dataset.pair, row.querySelector('select').value]),
  );
  if (!(await save(`/element/${table.dataset.of}/pairs`, { pairs }))) {
    refresh();
  }
}

export function startPairs() {
  document.addEventListener('change', (event) => {
    const table = event.target.closest('table[data-pairs]');
    if (table) {
      pair(table);
    }
  });
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-flows]');
    if (button) {
      save(`/element/${button.dataset.flows}/flows`, {});
    }
  });
}
