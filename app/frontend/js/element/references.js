// What lies outside the model: addresses an element refers to, and files attached to it.
import { refusal, saved } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';
import { element } from '../frame/dom.js';

function refer(id) {
  ask(
    common(),
    'Refer to an address',
    [
      {
        name: 'address',
        label: 'Address: http, https or mailto',
        input: element('input', { required: true, autocomplete: 'off' }),
      },
      { name: 'description', label: 'Description' },
      {
        name: 'incoming',
        label: 'Which way',
        input: element(
          'select',
          {},
          element('option', { value: 'yes', textContent: 'this comes from it' }),
          element('option', { value: '', textContent: 'this leads to it' }),
        ),
      },
    ],
    'Refer',
    ({ address, description, incoming }) =>
      refusal(`/element/${id}/references`, { address, description, incoming: incoming === 'yes' }),
  );
}

function attach(input) {
  const file = input.files[0];
  saved(`/element/${input.dataset.attach}/attachments`, (base) => {
    const form = new FormData();
    form.set('file', file);
    form.set('base', String(base));
    return form;
  });
}

export function startReferences() {
  document.addEventListener('change', (event) => {
    if (event.target.matches('[data-attach]') && event.target.files.length) {
      attach(event.target);
    }
  });
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-refer]');
    if (button) {
      refer(button.dataset.refer);
    }
  });
}
