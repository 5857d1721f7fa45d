// Taking up an inherited feature on the page of what inherits it: redefined, or subset under a name of its own.
import { element } from '../frame/dom.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';

export function startSpecialising() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-specialise]');
    if (!button) {
      return;
    }
    const { holder, feature, name } = button.dataset;
    const address = `/element/${holder}/specialise`;
    if (button.dataset.specialise === 'redefine') {
      save(address, { feature, name: null });
      return;
    }
    const input = element('input', { required: true, maxLength: 200, autocomplete: 'off' });
    ask(common(), `Subset ${name}`, [{ name: 'name', label: 'Name of what is some of it', input }], 'Add', (said) =>
      refusal(address, { feature, name: said.name }),
    );
  });
}
