// Small questions, asked in one dialog: columns, an attribute for many, find and replace.
import { element } from '../frame/dom.js';
import { fieldFor } from './fields.js';

/** A dialog of the page for who has none of their own. */
export function common() {
  let dialog = document.getElementById('question');
  if (!dialog) {
    dialog = element('dialog', { id: 'question', className: 'grid-dialog', aria: { label: 'Question' } });
    document.body.append(dialog);
  }
  return dialog;
}

/**
 * Asks with some fields; answers their values by name, or null if it was left.
 *
 * @param send tries what was answered and gives the sentence that refuses it, or ''; the dialog stays until it is taken
 */
export function ask(dialog, title, fields, action, send) {
  return new Promise((answer) => {
    const inputs = fields.map(({ name, label, input }) => {
      const field = input ?? element('input', { autocomplete: 'off' });
      field.name = name;
      return element('label', {}, label, field);
    });
    const form = element(
      'form',
      { method: 'dialog' },
      element('h2', { textContent: title }),
      ...inputs,
      element(
        'div',
        { className: 'flex gap-2' },
        element('button', { className: 'act primary', textContent: action, value: 'go' }),
        element('button', { className: 'act', textContent: 'Cancel', value: '', formNoValidate: true }),
      ),
    );
    dialog.replaceChildren(form);
    if (send) {
      staysWhileRefused(dialog, form, send);
    }
    dialog.onclose = () => answer(dialog.returnValue === 'go' ? Object.fromEntries(new FormData(form)) : null);
    dialog.returnValue = '';
    dialog.showModal();
  });
}

function staysWhileRefused(dialog, form, send) {
  const fault = element('p', { className: 'fault-line', role: 'alert' });
  form.lastElementChild.before(fault);
  form.addEventListener('submit', async (event) => {
    if (event.submitter?.value === 'go') {
      event.preventDefault();
      const refused = await send(Object.fromEntries(new FormData(form)));
      fault.textContent = refused;
      if (!refused) {
        dialog.close('go');
      }
    }
  });
}

/**
 * A wide dialog of its own for what takes more than a few fields; it stays while it is refused, with the reason.
 *
 * @param send gives the sentence that refuses, or ''
 */
export function openForm(label, action, content, send) {
  const fault = element('p', { className: 'fault', role: 'alert' });
  const form = element(
    'form',
    { method: 'dialog', className: 'exposing' },
    ...content,
    fault,
    element(
      'div',
      { className: 'flex gap-2' },
      element('button', { className: 'act primary', textContent: action, value: 'go' }),
      element('button', { className: 'act', textContent: 'Cancel', value: '', formNoValidate: true }),
    ),
  );
  const dialog = element('dialog', { className: 'grid-dialog wide', aria: { label } }, form);
  form.addEventListener('submit', async (event) => {
    if (event.submitter?.value === 'go') {
      event.preventDefault();
      fault.textContent = await send();
      if (!fault.textContent) {
        dialog.close();
      }
    }
  });
  dialog.addEventListener('close', () => dialog.remove());
  document.body.append(dialog);
  dialog.showModal();
  return { dialog, form, fault };
}

/** Which attribute to set and to what; the field follows the attribute. */
export async function askAttribute(dialog, attributes, count) {
  const names = element(
    'select',
    {},
    ...attributes.map(({ name }) => element('option', { value: name, textContent: name })),
  );
  const value = element('span');
  const fill = () => {
    const field = fieldFor(
      attributes.find(({ name }) => name === names.value),
      '',
    );
    field.name = 'value';
    field.setAttribute('aria-label', 'Value');
    value.replaceChildren(field);
  };
  names.addEventListener('change', fill);
  fill();
  const asked = ask(
    dialog,
    `Set an attribute of ${count} ${count === 1 ? 'requirement' : 'requirements'}`,
    [{ name: 'attribute', label: 'Attribute', input: names }],
    'Set',
  );
  dialog.querySelector('label').after(element('label', {}, 'Value', value));
  return asked;
}

/** Shows and hides columns and puts them in order; calls back at every change, and where a new attribute is wanted. */
export function askColumns(dialog, columns, changed, more) {
  const draw = () => {
    dialog.replaceChildren(
      element('h2', { textContent: 'Columns' }),
      ...columns.all.map((column) => {
        const box = element('input', { type: 'checkbox', checked: column.shown, disabled: column.key === 'text' });
        box.addEventListener('change', () => {
          columns.show(column.key, box.checked);
          changed();
        });
        const step = (by, sign, words) => {
          const button = element('button', {
            type: 'button',
            className: 'icon-act',
            textContent: sign,
            aria: { label: `${column.title} ${words}` },
          });
          button.addEventListener('click', () => {
            columns.move(column.key, by);
            changed();
            draw();
          });
          return button;
        };
        return element(
          'div',
          { className: 'column-choice' },
          element('label', {}, box, column.title),
          step(-1, '↑', 'further left'),
          step(1, '↓', 'further right'),
        );
      }),
      element(
        'form',
        { method: 'dialog', className: '!flex' },
        element('button', { className: 'act primary', textContent: 'Done' }),
        ...(more ? [element('button', { className: 'act', value: 'more', textContent: 'New attribute…' })] : []),
      ),
    );
  };
  draw();
  dialog.returnValue = '';
  dialog.onclose = () => dialog.returnValue === 'more' && more();
  dialog.showModal();
}
