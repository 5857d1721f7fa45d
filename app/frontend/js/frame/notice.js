// The quiet line at the bottom of the page that says what was saved or refused.

const SHOWN_FOR = 6000;

let hide;

/** Shows a line for a while; offers to undo where something was saved. */
export function say(message, undoable = false) {
  const line = document.getElementById('saved');
  line.replaceChildren(Object.assign(document.createElement('span'), { textContent: message }));
  if (undoable) {
    const undo = Object.assign(document.createElement('button'), { type: 'button', textContent: 'Undo' });
    undo.dataset.turn = 'undo';
    line.append(undo);
  }
  line.hidden = false;
  clearTimeout(hide);
  hide = setTimeout(() => {
    line.hidden = true;
  }, SHOWN_FOR);
}
