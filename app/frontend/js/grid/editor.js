// Editing a cell in place: Enter saves, Escape cancels, Tab saves and goes on to the next cell.
import { base as builtOn, branch, newestRevision, postEdit } from '../frame/server.js';
import { catchUp } from '../frame/live.js';
import { liveWording } from '../requirements/wording.js';
import { element } from '../frame/dom.js';
import { fieldFor } from './fields.js';

/** What is edited in a cell: the address to post to and the text as it is; null where nothing can be. */
export function editable(row, column) {
  if (row.type === 'heading' || (row.type === 'requirement' && column?.key === 'name')) {
    return { address: `/element/${row.id}/name`, text: row.name, body: (text) => ({ text }) };
  }
  if (row.type === 'note' || column?.key === 'text') {
    return {
      address: `/element/${row.id}/text`,
      text: row.text,
      long: true,
      wording: row.type === 'requirement' ? row.id : null,
      body: (text) => ({ text }),
    };
  }
  if (row.type === 'requirement' && column?.attribute) {
    return {
      address: '/requirements/attribute',
      text: row.attributes[column.attribute.name] ?? '',
      attribute: column.attribute,
      body: (text, base) => ({ lines: { ids: [row.id], base }, attribute: column.attribute.name, value: text }),
    };
  }
  return null;
}

/**
 * Opens an editor over a cell.
 *
 * @param done called with whether it was saved, with the key that ended it and with those pressed while it was saved
 * @param ahead what was typed before the cell was there, and the key that ended it
 */
export function edit(cell, what, label, done, ahead = null) {
  let base = builtOn();
  const field = what.long ? element('textarea', { value: what.text }) : fieldFor(what.attribute, what.text);
  field.setAttribute('aria-label', label);
  field.toggleAttribute('data-rich', Boolean(what.long));
  const editor = element('div', { className: 'editor over' }, field);
  cell.append(editor);
  let ended = false;
  let saving = false;
  let after = [];
  const leave = (saved, key) => {
    if (!ended) {
      ended = true;
      editor.remove();
      catchUp();
      done(saved, key, after);
    }
  };
  const fault = (message) => {
    saving = false;
    after = [];
    field.readOnly = false;
    editor.querySelector('.fault')?.remove();
    editor.append(element('p', { className: 'fault', role: 'alert', textContent: message }));
    field.focus();
  };
  const save = async (key) => {
    if (field.value === what.text) {
      leave(null, key);
      return;
    }
    saving = true;
    field.readOnly = true;
    const from = await base;
    const { status, body } = await postEdit(`${branch()}${what.address}`, () => ({
      base: from,
      ...what.body(field.value, from),
    }));
    if (status === 200) {
      leave(body, key);
    } else {
      base = status === 409 ? newestRevision() : base;
      fault(body.message);
    }
  };
  editor.addEventListener('keydown', (event) => {
    event.stopPropagation();
    if (saving) {
      // What comes behind Enter is for the grid, once this is saved.
      event.preventDefault();
      after.push(event.key);
    } else if (event.key === 'Escape') {
      leave(null, 'Escape');
    } else if ((event.key === 'Enter' && !event.shiftKey) || event.key === 'Tab') {
      event.preventDefault();
      save(event.key === 'Tab' && event.shiftKey ? 'BackTab' : event.key);
    }
  });
  editor.addEventListener('mousedown', (event) => event.stopPropagation());
  // A choice made by a click is saved at once; who goes through the choices by keys ends with Enter.
  let byKey = false;
  field.addEventListener('keydown', () => (byKey = true));
  field.addEventListener('pointerdown', () => (byKey = false));
  field.addEventListener('change', () => field.tagName === 'SELECT' && !byKey && save('Enter'));
  if (what.wording) {
    liveWording(field, what.wording, editor);
  }
  field.focus();
  if (ahead?.text || ahead?.key) {
    field.value = ahead.text || field.value;
    if (ahead.key === 'Escape') {
      leave(null, 'Escape');
    } else if (ahead.key) {
      save(ahead.key);
    }
  } else if (field.select) {
    field.select();
  }
}
