// The formal side of a requirement: its subject, constraints and values.
import { element } from '../frame/dom.js';
import { refusal } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';
import { definitionField } from '../needs/needs.js';

const field = (placeholder, more = {}) =>
  element('input', { className: 'mono', required: true, autocomplete: 'off', spellcheck: false, placeholder, ...more });

async function setSubject(requirement) {
  const name = await definitionField('SurgeGate');
  ask(
    common(),
    'Subject of the requirement',
    [{ name: 'name', label: 'Definition of what it is about', input: name }],
    'Set subject',
    (answer) => refusal(`/element/${requirement}/use-case/subject`, answer),
  );
}

function addConstraint(requirement) {
  const kind = element(
    'select',
    {},
    element('option', { value: 'require', textContent: 'required' }),
    element('option', { value: 'assume', textContent: 'assumed: judged only where it holds' }),
  );
  ask(
    common(),
    'Add a constraint',
    [
      {
        name: 'condition',
        label: 'Condition, with the subject and the values by their names',
        input: field('gate.mass <= most'),
      },
      { name: 'kind', label: 'Kind', input: kind },
    ],
    'Add',
    ({ condition, kind: chosen }) =>
      refusal(`/element/${requirement}/constraint`, { condition, assumed: chosen === 'assume' }),
  );
}

function addValue(requirement) {
  ask(
    common(),
    'Add a value',
    [
      { name: 'name', label: 'Name', input: field('most') },
      { name: 'value', label: 'Value with its unit', input: field('60 [t]') },
      { name: 'type', label: 'Type, if it is not that of the value', input: field('MassValue', { required: false }) },
    ],
    'Add',
    (answer) => refusal(`/element/${requirement}/attribute`, answer),
  );
}

export function startFormal() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-formal]');
    if (button) {
      const acts = { subject: setSubject, constraint: addConstraint, value: addValue };
      acts[button.dataset.formal](button.dataset.requirement);
    }
  });
}
