// How far an edit inside a part reaches on a drawing of an inside: this use of the part alone, or its definition and with it
// every use. Whoever draws chooses; the choice holds for all drawings of this browser tab.
import { onRefresh } from '../frame/live.js';

const KEPT = 'pyrite.extent';

const choice = () => document.getElementById('extent');
const kept = () => sessionStorage.getItem(KEPT) ?? 'USE';

/** Whether this drawing shows uses within uses. */
export const hasUses = () => choice() !== null;

/** USE or DEFINITION, as the server takes it. */
export const extent = () => (hasUses() ? kept() : 'DEFINITION');

function show() {
  if (hasUses()) {
    choice().value = kept();
  }
}

export function startExtent() {
  show();
  // The head of the page is made anew with every change.
  onRefresh(show);
  document.addEventListener('change', (event) => {
    if (event.target.id === 'extent') {
      sessionStorage.setItem(KEPT, event.target.value);
    }
  });
}
