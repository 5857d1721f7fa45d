// The field that suits the type of an attribute.
import { element } from '../frame/dom.js';

/** @param attribute { type, choices }; without one the field takes any text */
export function fieldFor(attribute, text) {
  const choices = attribute?.type === 'truth' ? ['yes', 'no'] : (attribute?.choices ?? []);
  if (choices.length) {
    const field = element(
      'select',
      {},
      element('option', { value: '', textContent: '–' }),
      ...choices.map((choice) => element('option', { value: choice, textContent: choice })),
    );
    field.value = text;
    return field;
  }
  return element('input', { value: text, type: attribute?.type === 'date' ? 'date' : 'text' });
}
