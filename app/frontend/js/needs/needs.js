// Needs: new ones, and who wants them.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { refusal } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';

/** A field for the name of a definition; those there are stand to choose from. */
export async function definitionField(placeholder, required = true) {
  const response = await fetch(at('use-cases/choices.json'), { headers: { 'X-Requested-With': 'fetch' } });
  const { definitions } = response.ok ? await response.json() : { definitions: [] };
  document.getElementById('definitions')?.remove();
  document.body.append(
    element('datalist', { id: 'definitions' }, ...definitions.map((value) => element('option', { value }))),
  );
  const field = element('input', { required, maxLength: 200, autocomplete: 'off', placeholder });
  field.setAttribute('list', 'definitions');
  return field;
}

async function addNeed() {
  const home = element(
    'select',
    {},
    ...[...document.getElementById('need-homes').options].map((o) => o.cloneNode(true)),
  );
  const text = element('textarea', { required: true, rows: 3, placeholder: 'The streets stay dry in a storm.' });
  ask(
    common(),
    'Add a need',
    [
      { name: 'text', label: 'What is needed', input: text },
      { name: 'wantedBy', label: 'Stakeholder', input: await definitionField('HarbourMaster', false) },
      { name: 'home', label: 'In', input: home },
    ],
    'Add',
    (answer) => refusal('/needs/add', answer),
  );
}

async function addStakeholder(of) {
  const name = await definitionField('HarbourMaster');
  ask(
    common(),
    'Add a stakeholder',
    [{ name: 'name', label: 'Definition, or the name of a new one', input: name }],
    'Add',
    (answer) => refusal(`/element/${of}/stakeholder`, answer),
  );
}

export function startNeeds() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-need]');
    if (button?.dataset.need === 'add') {
      addNeed();
    } else if (button?.dataset.need === 'stakeholder') {
      addStakeholder(button.dataset.of);
    }
  });
}
