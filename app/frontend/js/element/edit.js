// Editing in place: what carries data-edit becomes a field when it is clicked or entered. Enter saves, Escape cancels; a
// refused text stays in the field with the reason under it.
import { branch, newestRevision, post, postEdit, revision } from '../frame/server.js';
import { isTyping } from '../frame/keys.js';
import { catchUp, refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { fieldFor } from '../grid/fields.js';
import { liveWording } from '../requirements/wording.js';

function fault(editor, message) {
  const old = editor.querySelector('.fault');
  old?.remove();
  const line = Object.assign(document.createElement('p'), { className: 'fault' });
  line.setAttribute('role', 'alert');
  line.textContent = message;
  editor.append(line);
}

function markPlace(field, problems) {
  const span = problems?.[0]?.span;
  if (span && span.end > span.start && span.end <= field.value.length) {
    field.setSelectionRange(span.start, span.end);
  }
}

/** Saves the text of a field; leaves it open with the reason if that is refused. */
async function save(editor, field, address, leave) {
  const base = Number(editor.dataset.base);
  const { status, body } = await post(
    address,
    editor.attribute
      ? {
          lines: { ids: [editor.attribute.requirement], base },
          attribute: editor.attribute.attribute,
          value: field.value,
        }
      : { text: field.value, base, ...(editor.dataset.in && { in: editor.dataset.in }) },
  );
  if (status === 200) {
    leave();
    await refresh();
    say(body.saved ? `${editor.dataset.in ? body.message : 'Saved'} · ${body.revision}` : body.message, body.saved);
    return;
  }
  if (status === 409) {
    editor.dataset.base = String(await newestRevision());
  }
  fault(editor, body.message);
  field.focus();
  markPlace(field, body.problems);
}

function open(target) {
  const long = target.dataset.edit === 'text';
  const editor = Object.assign(document.createElement('div'), { className: 'editor' });
  editor.dataset.base = String(revision());
  if (target.dataset.in) {
    editor.dataset.in = target.dataset.in;
  }
  const attribute = target.dataset.edit === 'attribute' ? target.dataset : null;
  const text = target.dataset.empty ? '' : (target.dataset.text ?? target.textContent.trim());
  const field = attribute
    ? fieldFor({ type: attribute.type, choices: attribute.choices.split(',').filter(Boolean) }, text)
    : document.createElement(long ? 'textarea' : 'input');
  field.value = text;
  field.className = long || attribute ? '' : 'mono';
  editor.attribute = attribute;
  field.setAttribute('aria-label', target.dataset.label);
  field.spellcheck = long;
  field.toggleAttribute('data-rich', long);
  const hint = Object.assign(document.createElement('p'), {
    className: 'hint',
    textContent: 'Enter saves, Escape cancels',
  });
  editor.append(field, hint);
  target.hidden = true;
  target.after(editor);
  const leave = () => {
    editor.remove();
    target.hidden = false;
    target.focus();
    catchUp();
  };
  field.addEventListener('keydown', (event) => {
    if (event.key === 'Escape') {
      leave();
    } else if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      save(editor, field, `${branch()}${attribute ? '/requirements/attribute' : target.dataset.address}`, leave);
    }
    event.stopPropagation();
  });
  if (target.dataset.wording) {
    liveWording(field, target.dataset.wording, editor);
  }
  field.focus();
  field.select?.();
}

function quickAdd(form) {
  const editor = form.querySelector('.editor');
  const field = form.querySelector('textarea');
  editor.dataset.base = String(revision());
  if (form.dataset.in) {
    editor.dataset.in = form.dataset.in;
  }
  save(editor, field, `${branch()}${form.dataset.address}`, () => {
    field.value = '';
    editor.querySelector('.fault')?.remove();
    field.blur();
  });
}

export function startEditing() {
  document.addEventListener('click', (event) => {
    const target = event.target.closest('[data-edit]');
    if (target) {
      open(target);
    }
    const remove = event.target.closest('[data-remove]');
    if (remove) {
      postEdit(`${branch()}${remove.dataset.remove}`, (base) => ({ text: '', base })).then(async ({ status, body }) => {
        if (status === 200 && body.saved && remove.dataset.then) {
          location.href = remove.dataset.then;
          return;
        }
        say(body.message, body.saved);
        await refresh();
      });
    }
  });
  document.addEventListener('submit', (event) => {
    const form = event.target.closest('[data-quick-add]');
    if (form) {
      event.preventDefault();
      quickAdd(form);
    }
  });
  document.addEventListener('keydown', (event) => {
    const target = event.target.closest('[data-edit]');
    if (target && (event.key === 'Enter' || event.key === ' ')) {
      event.preventDefault();
      open(target);
    }
    if (event.key === 'Enter' && !event.shiftKey && event.target.matches('[data-quick-add] textarea')) {
      event.preventDefault();
      event.target.form.requestSubmit();
    }
  });
  document.addEventListener('keydown', (event) => {
    if (event.key.toLowerCase() === 'a' && !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event)) {
      const field = document.querySelector('[data-quick-add] textarea');
      if (field) {
        event.preventDefault();
        field.focus();
        field.scrollIntoView({ block: 'center' });
      }
    }
  });
}
