// The dialogs of the page of link rules, for administrators.
import { save } from '../frame/saving.js';
import { ask } from '../grid/dialog.js';
import { element } from '../frame/dom.js';

async function askRule(row) {
  const field = (name, label, value, type = 'text') => ({
    name,
    label,
    input: element('input', { value, type, min: 0, autocomplete: 'off' }),
  });
  const offering = (name, label, value, list) => {
    const asked = field(name, label, value);
    asked.input.setAttribute('list', list);
    return asked;
  };
  const data = row?.dataset ?? {};
  const answer = await ask(
    document.getElementById('rule-dialog'),
    'Link rule',
    [
      offering('kind', 'Kind of link', data.kind ?? '', 'known-kinds'),
      offering('from', 'From: levels or kinds of elements, separated by commas', data.from ?? '', 'known-ends'),
      offering('to', 'To', data.to ?? '', 'known-ends'),
      field('leastFrom', 'Links expected from each', data.leastFrom ?? '0', 'number'),
      field('leastTo', 'Links expected at each', data.leastTo ?? '0', 'number'),
      field('watched', 'Properties whose change puts the link in doubt', data.watched ?? 'text, constraint'),
    ],
    'Save',
  );
  if (answer) {
    save('/rules', {
      ...answer,
      leastFrom: Number(answer.leastFrom),
      leastTo: Number(answer.leastTo),
      element: data.rule ?? null,
    });
  }
}

async function askKind() {
  const answer = await ask(
    document.getElementById('rule-dialog'),
    'Kind of link',
    [
      { name: 'key', label: 'Key, for rules and the notation' },
      { name: 'forward', label: 'Verb from source to target' },
      { name: 'backward', label: 'Verb from target to source' },
    ],
    'Add',
  );
  if (answer) {
    save('/rules/kinds', { ...answer });
  }
}

export function startRules() {
  document.addEventListener('click', (event) => {
    const row = event.target.closest('tr');
    if (event.target.closest('[data-rule-edit]')) {
      askRule(row);
    } else if (event.target.closest('[data-rule-new]')) {
      askRule(null);
    } else if (event.target.closest('[data-kind-new]')) {
      askKind();
    } else if (event.target.closest('[data-rule-remove]')) {
      save('/rules/remove', { element: row.dataset.rule });
    }
  });
}
