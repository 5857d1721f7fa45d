// Keeping the way to a drawing under a name: for oneself or for everybody.
import { element } from '../frame/dom.js';
import { branch } from '../frame/server.js';
import { refusal } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';

export function bookmark() {
  const title = document.querySelector('h1')?.textContent.trim() ?? 'Drawing';
  const name = element('input', { required: true, maxLength: 120, value: title });
  const shared = element(
    'select',
    {},
    element('option', { value: '', textContent: 'me' }),
    element('option', { value: 'yes', textContent: 'everybody' }),
  );
  ask(
    common(),
    'Bookmark this drawing',
    [
      { name: 'name', label: 'Name', input: name },
      { name: 'shared', label: 'Listed for', input: shared },
    ],
    'Bookmark',
    (said) =>
      refusal('/views', {
        name: said.name,
        page: 'drawing',
        query: location.pathname.slice(branch().length + 1),
        shared: said.shared === 'yes',
        pinned: false,
      }),
  );
}
