// Mending what a check of the model noticed, and waiving it with a reason.
import { element } from '../frame/dom.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';

function waive(data) {
  const reason = element('input', { required: true, maxLength: 2000, autocomplete: 'off' });
  ask(common(), 'Waive the finding', [{ name: 'reason', label: 'Reason', input: reason }], 'Waive', (answer) =>
    refusal('/findings/waive', { ...data, reason: answer.reason }),
  );
}

export function startFindings() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-finding]');
    if (!button) {
      return;
    }
    const data = { element: button.dataset.at, key: button.dataset.finding };
    if (button.dataset.mend) {
      save('/findings/mend', { ...data, label: button.dataset.mend });
    } else if (button.dataset.restore !== undefined) {
      save('/findings/waive', { ...data, reason: '' });
    } else {
      waive(data);
    }
  });
}
