// The form of the trace table: its columns and their steps stand in the address.

/** The columns as the address has them: derive<;satisfy<|text|without. */
function columnsOf(form) {
  return [...form.querySelectorAll('.path-column')].map((column) => {
    const steps = [...column.querySelectorAll('.path-step')].map(
      (step) => step.querySelector('[data-step]').value + step.querySelector('[data-depth]').value,
    );
    return `${steps.join(';')}|${column.querySelector('[data-show]').value}|${column.querySelector('[data-keep]').value}`;
  });
}

export function startTrace() {
  const show = (columns) => {
    const query = new URLSearchParams({ set: document.querySelector('#trace-form [name="set"]').value });
    columns.forEach((column) => query.append('col', column));
    if (!columns.length) {
      query.append('col', '');
    }
    query.set('edit', 'on');
    location.search = query;
  };
  const change = (event, changed) => {
    const form = event.target.closest('#trace-form');
    if (form) {
      const columns = columnsOf(form);
      const place = [...form.querySelectorAll('.path-column')].indexOf(event.target.closest('.path-column'));
      changed(columns, place);
      show(columns);
    }
  };
  document.addEventListener('change', (event) => change(event, () => {}));
  document.addEventListener('click', (event) => {
    const steps = (text) => text.split('|')[0];
    if (event.target.closest('[data-add-column]')) {
      change(event, (columns) => columns.push('derive<||'));
    } else if (event.target.closest('[data-drop-column]')) {
      change(event, (columns, place) => columns.splice(place, 1));
    } else if (event.target.closest('[data-add-step]')) {
      change(event, (columns, place) => {
        columns[place] = columns[place].replace('|', ';satisfy<|');
      });
    } else if (event.target.closest('[data-drop-step]')) {
      change(event, (columns, place) => {
        columns[place] = columns[place].replace(steps(columns[place]), steps(columns[place]).replace(/;[^;]*$/, ''));
      });
    }
  });
}
