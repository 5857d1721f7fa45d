// Comparing the candidates for a part: weights, the choice with its reason, and new products.
import { element } from '../frame/dom.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';

const text = (more) => element('input', { autocomplete: 'off', maxLength: 2000, ...more });

function weigh(table) {
  const criteria = [...table.querySelectorAll('tr[data-quantity]')].map((row) => ({
    quantity: row.dataset.quantity,
    weight: Math.min(100, Math.max(0, Math.round(Number(row.querySelector('input').value) || 0))),
    isMoreBetter: row.querySelector('select').value === 'more',
  }));
  save(`/element/${table.dataset.of}/candidates/weigh`, { criteria });
}

function choose(button) {
  const { of, candidate, name } = button.dataset;
  const reason = { name: 'reason', label: 'Why', input: text({ required: true }) };
  ask(common(), candidate ? `Choose ${name}` : 'Undo the choice', [reason], candidate ? 'Choose' : 'Undo', (said) =>
    refusal(`/element/${of}/candidates/choose`, { candidate: candidate || null, reason: said.reason }),
  );
}

function add(button) {
  const { of, quantities } = button.dataset;
  const asked = JSON.parse(quantities);
  ask(
    common(),
    'Add a product',
    [
      { name: 'name', label: 'Product', input: text({ required: true }) },
      { name: 'supplier', label: 'Supplier' },
      { name: 'address', label: 'Web address', input: text({ placeholder: 'https://' }) },
      ...asked.map(({ name, unit }, i) => ({
        name: `value-${i}`,
        label: unit ? `${name} in ${unit}` : name,
        input: text({ inputMode: 'decimal' }),
      })),
    ],
    'Add',
    (said) => {
      const values = Object.fromEntries(
        asked.map(({ name, unit }, i) => [name, withUnit(said[`value-${i}`].trim(), unit)]),
      );
      const { name, supplier, address } = said;
      return refusal(`/element/${of}/candidates/add`, { name, supplier, address, values });
    },
  );
}

/** A bare number is in the unit of its label; whoever writes another unit means that. */
const withUnit = (value, unit) => (unit && /^-?[\d.]+(e-?\d+)?$/i.test(value) ? `${value} [${unit}]` : value);

export function startCandidates() {
  document.addEventListener('change', (event) => {
    const table = event.target.closest('table[data-candidates]');
    if (table && event.target.closest('[data-quantity]')) {
      weigh(table);
    }
  });
  document.addEventListener('click', (event) => {
    const choosing = event.target.closest('[data-choose]');
    const adding = event.target.closest('[data-add-candidate]');
    if (choosing) {
      choose(choosing);
    } else if (adding) {
      add(adding);
    }
  });
}
