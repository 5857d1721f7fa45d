// The outline: fold and unfold, and filter by text. Up, Down, Left and Right move as in any tree.

const FOLDED = 'pyrite.outline.folded';

const rows = () => [...document.querySelectorAll('.tree tr[data-depth]')];
const depth = (row) => Number(row.dataset.depth);

function descendants(all, index) {
  const below = [];
  for (let i = index + 1; i < all.length && depth(all[i]) > depth(all[index]); i++) {
    below.push(all[i]);
  }
  return below;
}

function folded() {
  return new Set(JSON.parse(localStorage.getItem(FOLDED) ?? '[]'));
}

/** Shows what is not below a folded row; with a filter, what matches and its owners. */
function show() {
  const wanted = document.getElementById('outline-filter')?.value.trim().toLowerCase() ?? '';
  const all = rows();
  const closed = folded();
  let hiddenBelow = Infinity;
  all.forEach((row) => {
    row.hidden = depth(row) > hiddenBelow;
    if (depth(row) <= hiddenBelow) {
      hiddenBelow = closed.has(row.dataset.select) ? depth(row) : Infinity;
    }
    if (row.hasAttribute('aria-expanded')) {
      row.setAttribute('aria-expanded', String(!closed.has(row.dataset.select)));
    }
  });
  if (wanted) {
    const owners = [];
    all.forEach((row) => { row.hidden = true; });
    all.forEach((row) => {
      owners.length = depth(row);
      owners[depth(row)] = row;
      if (row.dataset.name.toLowerCase().includes(wanted)) {
        owners.forEach((owner) => { owner.hidden = false; });
      }
    });
  }
}

function fold(row, close) {
  const closed = folded();
  if (close) {
    closed.add(row.dataset.select);
  } else {
    closed.delete(row.dataset.select);
  }
  localStorage.setItem(FOLDED, JSON.stringify([...closed]));
  show();
}

function move(row, step) {
  const visible = rows().filter((each) => !each.hidden);
  visible[visible.indexOf(row) + step]?.focus();
}

export function startOutline() {
  if (!document.querySelector('.tree')) {
    return;
  }
  if (localStorage.getItem(FOLDED) === null) {
    const all = rows();
    const leaves = all.filter((row, i) => depth(row) > 0 && descendants(all, i).length > 0);
    localStorage.setItem(FOLDED, JSON.stringify(leaves.map((row) => row.dataset.select)));
  }
  show();
  document.addEventListener('input', (event) => {
    if (event.target.id === 'outline-filter') {
      show();
    }
  });
  document.addEventListener('click', (event) => {
    const row = event.target.closest('.fold')?.closest('tr');
    if (row) {
      fold(row, row.getAttribute('aria-expanded') === 'true');
    }
  });
  document.addEventListener('keydown', (event) => {
    const row = event.target.closest('.tree tr[data-depth]');
    if (!row || event.target !== row) {
      return;
    }
    const actions = {
      ArrowDown: () => move(row, 1),
      ArrowUp: () => move(row, -1),
      ArrowRight: () => fold(row, false),
      ArrowLeft: () => fold(row, true),
      Enter: () => row.querySelector('a').click(),
    };
    if (actions[event.key]) {
      event.preventDefault();
      actions[event.key]();
    }
  });
}
