// Using library packages of other projects, moving them to a newer baseline, putting that off and leaving them.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';

const acts = {
  use: ({ project, top, number }) => save('/libraries/use', { project, top, number: Number(number) }),
  async move({ project, number }) {
    if (await save('/libraries/move', { project, number: Number(number), reason: '' })) {
      location.assign(at('libraries'));
    }
  },
  putOff({ project, number }) {
    const reason = element('input', { required: true, maxLength: 2000, autocomplete: 'off' });
    ask(
      common(),
      'Postpone the newer baseline',
      [{ name: 'reason', label: 'Why', input: reason }],
      'Postpone',
      (said) => refusal('/libraries/put-off', { project, number: Number(number), reason: said.reason }),
    );
  },
  leave: ({ project, number }) => save('/libraries/leave', { project, number: Number(number), reason: '' }),
};

export function startLibraries() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-library]');
    if (button) {
      acts[button.dataset.library](button.dataset);
    }
  });
}
