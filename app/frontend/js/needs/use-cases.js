// What is said of a use case beside its story: what it is about, who takes part, which needs it frames; and new use cases.
import { element } from '../frame/dom.js';
import { at, branch, postEdit } from '../frame/server.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';
import { definitionField } from './needs.js';

const useCase = () => document.getElementById('story')?.dataset.case;

async function choices() {
  const response = await fetch(at('use-cases/choices.json'), { headers: { 'X-Requested-With': 'fetch' } });
  return response.ok ? response.json() : { needs: [] };
}

async function askType(title, act, action) {
  const name = await definitionField('');
  ask(
    common(),
    title,
    [{ name: 'name', label: 'A definition there is, or the name of a new one', input: name }],
    action,
    (answer) => refusal(`/element/${useCase()}/use-case/${act}`, answer),
  );
}

async function askNeed() {
  const { needs } = await choices();
  const select = element(
    'select',
    {},
    ...needs.map(({ id, label, text }) =>
      element('option', { value: id, textContent: `${label}: ${text.slice(0, 70)}` }),
    ),
  );
  ask(common(), 'Which need does it answer?', [{ name: 'need', label: 'Need', input: select }], 'Add', ({ need }) =>
    refusal(`/element/${useCase()}/use-case/need`, { need, frames: true }),
  );
}

function askUseCase() {
  const text = element('input', {
    required: true,
    maxLength: 2000,
    autocomplete: 'off',
    placeholder: 'Close the channel before a storm',
  });
  ask(
    common(),
    'New use case',
    [{ name: 'text', label: 'What somebody wants to reach', input: text }],
    'Add and write its story',
    async (answer) => {
      const { status, body } = await postEdit(`${branch()}/use-cases/add`, (base) => ({ ...answer, base }));
      if (status !== 200 || !body.saved) {
        return body.message;
      }
      location.href = at(`element/${body.made[0]}/story`);
      return '';
    },
  );
}

export function startUseCases() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-use-case]');
    if (!button) {
      return;
    }
    const act = button.dataset.useCase;
    if (act === 'add') {
      askUseCase();
    } else if (act === 'actor') {
      askType('Who takes part?', 'actor', 'Add actor');
    } else if (act === 'subject') {
      askType('What is it about?', 'subject', 'Set');
    } else if (act === 'need') {
      askNeed();
    } else if (act === 'unframe') {
      save(`/element/${useCase()}/use-case/need`, { need: button.dataset.need, frames: false });
    }
  });
}
