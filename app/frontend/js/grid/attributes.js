// A new attribute of requirements: what it is called, what its values are, and whether one is required.
import { at, branch, postEdit } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { element } from '../frame/dom.js';
import { ask } from './dialog.js';

const TYPES = {
  text: 'text',
  number: 'number',
  choice: 'choice of several',
  date: 'date',
  person: 'person',
  truth: 'yes or no',
};

const option = (value, textContent = value) => element('option', { value, textContent });

/** Asks for an attribute until it can be added or is given up; answers its name, or null. */
export async function addAttribute(dialog) {
  const response = await fetch(at('requirements/quantities.json'), { headers: { 'X-Requested-With': 'fetch' } }).catch(
    () => null,
  );
  const quantities = response?.ok ? await response.json() : [];
  const field = (name, label, input) => ({ name, label, input });
  const text = (placeholder) => element('input', { autocomplete: 'off', placeholder });
  const asked = [
    field('name', 'Name', element('input', { required: true, maxLength: 60, autocomplete: 'off' })),
    field(
      'type',
      'Values',
      element('select', {}, ...Object.entries(TYPES).map(([value, words]) => option(value, words))),
    ),
    field('choices', 'Choices, separated by commas', text('low, medium, high')),
    field(
      'quantity',
      'Quantity',
      element('select', {}, option('', 'none: a plain number'), ...quantities.map((each) => option(each))),
    ),
    field('byDefault', 'Default', text('')),
    field(
      'required',
      'Required before approval',
      element('select', {}, option('', 'optional'), option('yes', 'required')),
    ),
  ];
  const type = asked[1].input;
  // Only what the type has is asked.
  const follow = () =>
    [
      ['choices', 'choice'],
      ['quantity', 'number'],
    ].forEach(([name, of]) => {
      dialog.querySelector(`[name="${name}"]`).closest('label').hidden = type.value !== of;
    });
  type.addEventListener('change', follow);
  for (;;) {
    const answered = ask(dialog, 'New attribute', asked, 'Add');
    follow();
    const answer = await answered;
    if (!answer) {
      return null;
    }
    const { status, body } = await postEdit(`${branch()}/requirements/attributes`, (base) => ({
      ...answer,
      required: answer.required === 'yes',
      base,
    }));
    say(
      status === 200 && body.saved ? `${body.message} · ${body.revision}` : body.message,
      status === 200 && body.saved,
    );
    if (status === 200) {
      return answer.name.trim();
    }
  }
}
