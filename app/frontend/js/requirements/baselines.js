// Naming a revision as a baseline, and taking the name away.
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';
import { element } from '../frame/dom.js';

function nameBaseline(button) {
  ask(
    common(),
    'Name a baseline',
    [
      { name: 'name', label: 'Name', input: element('input', { required: true, maxLength: 200, autocomplete: 'off' }) },
      {
        name: 'number',
        label: 'Revision',
        input: element('input', { type: 'number', min: 1, value: button.dataset.number }),
      },
      { name: 'note', label: 'Description' },
    ],
    'Name the baseline',
    ({ name, number, note }) => refusal('/baselines', { name, number: Number(number), note }),
  );
}

export function startBaselines() {
  document.addEventListener('click', (event) => {
    const named = event.target.closest('[data-baseline]');
    const taken = event.target.closest('[data-baseline-remove]');
    if (named) {
      nameBaseline(named);
    } else if (taken) {
      save(`/baselines/${taken.dataset.baselineRemove}/remove`);
    }
  });
}
