// Conditions on attributes: how they stand in the address, in words, and the dialog that asks for one.
import { ask } from './dialog.js';
import { element } from '../frame/dom.js';
import { fieldFor } from './fields.js';

const WORDS = { ':': 'is', '!': 'is not', '~': 'contains', '>': 'is at least', '<': 'is at most' };
const DATES = { '>': 'is on or after', '<': 'is on or before' };
const MISSING = 'missing';
const GIVEN = 'given';

/** What may be asked of an attribute, by its type. */
const SIGNS = {
  text: ['~', ':', '!'],
  person: ['~', ':', '!'],
  number: ['>', '<'],
  date: ['>', '<', ':'],
  choice: [':', '!'],
  truth: [':', '!'],
};

const wordsFor = (type, sign) => (type === 'date' && DATES[sign]) || WORDS[sign];

/** A condition in words: mass is at most 2 [t]. */
export function inWords(condition, attributes) {
  const [, name, sign, value] = condition.match(/^([^:!~<>]+)([:!~<>])(.*)$/) ?? [null, condition, '', ''];
  if (!value && sign) {
    return `${name} is ${sign === ':' ? 'missing' : 'given'}`;
  }
  return `${name} ${wordsFor(attributes.find((each) => each.name === name)?.type, sign) ?? ''} ${value}`;
}

/** Asks for one condition; null if it was left. */
export async function askCondition(dialog, attributes) {
  const option = (value, textContent) => element('option', { value, textContent });
  const names = element('select', {}, ...attributes.map(({ name }) => option(name, name)));
  const how = element('select');
  const value = element('span');
  const fill = () => {
    const attribute = attributes.find(({ name }) => name === names.value);
    how.replaceChildren(
      ...SIGNS[attribute.type].map((sign) => option(sign, wordsFor(attribute.type, sign))),
      option(MISSING, 'is missing'),
      option(GIVEN, 'is given'),
    );
    const field = fieldFor(attribute, '');
    field.name = 'value';
    field.required = true;
    field.placeholder = attribute.unit ? `in ${attribute.unit}, or with another unit: 12 [${attribute.unit}]` : '';
    field.setAttribute('aria-label', 'Value');
    value.replaceChildren(field);
    needed();
  };
  const needed = () => {
    const none = [MISSING, GIVEN].includes(how.value);
    value.closest('label')?.toggleAttribute('hidden', none);
    value.firstChild.disabled = none;
  };
  names.addEventListener('change', fill);
  how.addEventListener('change', needed);
  fill();
  const asked = ask(
    dialog,
    'Filter by an attribute',
    [
      { name: 'attribute', label: 'Attribute', input: names },
      { name: 'how', label: 'Its value', input: how },
    ],
    'Filter',
  );
  dialog.querySelectorAll('label')[1].after(element('label', {}, 'Value', value));
  const answer = await asked;
  const { attribute, how: sign, value: wanted } = answer ?? {};
  // A field of blanks only passes for filled in.
  if (!answer || wanted?.trim() === '') {
    return null;
  }
  return sign === MISSING ? `${attribute}:` : sign === GIVEN ? `${attribute}!` : `${attribute}${sign}${wanted.trim()}`;
}

/** Shows conditions, each with a way to drop it. */
export function drawConditions(host, conditions, attributes, drop) {
  host.hidden = !conditions.length;
  host.replaceChildren(
    ...conditions.map((condition) => {
      const words = inWords(condition, attributes);
      const button = element(
        'button',
        {
          type: 'button',
          className: 'act condition',
          title: 'Remove this condition',
          aria: { label: `Drop: ${words}` },
        },
        words,
        element('span', { textContent: ' ×', aria: { hidden: 'true' } }),
      );
      button.addEventListener('click', () => drop(condition));
      return button;
    }),
  );
}
