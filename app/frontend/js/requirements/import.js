// Importing a table: the file is sent with each question, so that what is shown is what the server would do with it.
import { branch, post, revision } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { element } from '../frame/dom.js';

export function startImport() {
  const form = document.getElementById('import');
  if (!form) {
    return;
  }
  const fault = document.getElementById('import-fault');
  const preview = document.getElementById('import-preview');
  const columns = document.getElementById('import-columns');

  const data = (mapped) => {
    const fields = new FormData(form);
    fields.set('headed', String(form.headed.checked));
    fields.set('columns', mapped ? [...columns.querySelectorAll('select')].map(({ value }) => value).join(',') : '');
    fields.set('base', String(revision()));
    return fields;
  };

  const show = (body) => {
    preview.hidden = false;
    form.headed.checked = body.headed;
    columns.replaceChildren(
      ...body.first.map((title, i) =>
        element(
          'label',
          {},
          body.headed ? title || `column ${i + 1}` : `“${title.slice(0, 24)}”`,
          element(
            'select',
            { aria: { label: `What column ${i + 1} is` } },
            ...body.meanings.map((meaning) =>
              element('option', {
                value: meaning,
                textContent: meaning || 'left out',
                selected: meaning === body.mapping[i],
              }),
            ),
          ),
        ),
      ),
    );
    document.getElementById('import-count').textContent =
      `${body.rows} ${body.rows === 1 ? 'row' : 'rows'}: ${body.added} new, ${body.changed} to change${mending(body.problems.length)}`;
    document
      .getElementById('import-problems')
      .replaceChildren(
        ...body.problems.map(({ row, message }) => element('li', { textContent: `Row ${row}: ${message}` })),
      );
    document
      .getElementById('import-changes')
      .replaceChildren(
        ...body.changes.map((change) =>
          element(
            'tr',
            {},
            element('td', { className: 'mono', textContent: change.row }),
            element('td', { className: 'tag', textContent: change.id }),
            element('td', { className: 'quiet', textContent: change.isNew ? `new: ${change.what}` : change.what }),
            element('td', { className: 'before', textContent: change.before }),
            element('td', { className: 'after', textContent: change.after }),
          ),
        ),
      );
    document.getElementById('import-go').disabled = body.problems.length > 0 || (!body.added && !body.changed);
  };

  const look = async (mapped) => {
    if (!form.file.files.length) {
      return;
    }
    const { status, body } = await post(`${branch()}/requirements/import/preview`, data(mapped));
    fault.textContent = status === 200 ? '' : body.message;
    preview.hidden = status !== 200;
    document.getElementById('import-hint').hidden = status === 200;
    if (status === 200) {
      show(body);
    }
  };

  const page = document.getElementById('work');
  page.addEventListener('dragover', (event) => event.preventDefault());
  page.addEventListener('drop', (event) => {
    event.preventDefault();
    if (event.dataTransfer.files.length) {
      form.file.files = event.dataTransfer.files;
      look(false);
    }
  });
  form.addEventListener('change', (event) => look(event.target.name !== 'file'));
  columns.addEventListener('change', () => look(true));
  document.getElementById('import-go').addEventListener('click', async () => {
    const { status, body } = await post(`${branch()}/requirements/import`, data(true));
    if (status === 200 && body.saved) {
      location.href = `${branch()}/requirements?spec=${form.spec.value}`;
    } else {
      fault.textContent = body.message;
      say(body.message);
    }
  });
}

function mending(faults) {
  return faults === 0
    ? '.'
    : `. Nothing is imported until ${faults === 1 ? 'this fault is' : `these ${faults} faults are`} mended:`;
}
