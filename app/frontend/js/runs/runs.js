// Starting, watching, stopping and choosing runs.
import { at, branch, post } from '../frame/server.js';
import { onRefresh, onRun } from '../frame/live.js';
import { say } from '../frame/notice.js';

async function start(button) {
  button.disabled = true;
  const { status, body } = await post(`${branch()}/element/${button.dataset.start}/start`);
  if (status === 201) {
    location.href = body.address;
  } else {
    button.disabled = false;
    say(body.message);
  }
}

async function verifyAll(button) {
  button.disabled = true;
  const { status, body } = await post(`${branch()}/verify-all`);
  if (status === 201) {
    location.href = `${branch()}/runs`;
  } else {
    button.disabled = false;
    say(body.message);
  }
}

const LOOK_EVERY = 500;
let lookedAt = 0;

/** The timeline of a run builds up while that goes on. */
function showSoFar(id) {
  const isShown = document.querySelector(`[data-timeline="${id}"]`);
  if (isShown && performance.now() - lookedAt > LOOK_EVERY) {
    lookedAt = performance.now();
    document.dispatchEvent(new CustomEvent('pyrite:timeline'));
  }
}

function showProgress({ id, fraction = 0, done }) {
  if (!done) {
    showSoFar(id);
  }
  for (const bar of document.querySelectorAll(`[data-progress="${id}"]`)) {
    const percent = done ? 100 : Math.floor(fraction * 100);
    bar.querySelector('i').style.width = `${percent}%`;
    bar.setAttribute('aria-valuenow', String(percent));
    const text = document.getElementById(`${bar.id}-number`);
    if (text) {
      text.textContent = `${percent} %`;
    }
  }
}

/** Runs that are chosen to be compared; the button is for two or more. */
function chooseRuns() {
  const button = document.querySelector('[data-compare]');
  if (button) {
    button.disabled = document.querySelectorAll('[data-chosen-run]:checked').length < 2;
  }
}

/** The first difference from a recording is in sight. */
function showDifference() {
  const row = document.querySelector('.compared tr.first');
  if (row) {
    const box = row.closest('.compared');
    box.scrollTop = row.offsetTop - box.clientHeight / 2;
  }
}

export function startRuns() {
  document.addEventListener('click', (event) => {
    const starter = event.target.closest('[data-start]');
    if (starter) {
      start(starter);
    }
    const all = event.target.closest('[data-verify-all]');
    if (all) {
      verifyAll(all);
    }
    const comparer = event.target.closest('[data-compare]');
    if (comparer) {
      const chosen = [...document.querySelectorAll('[data-chosen-run]:checked')].map((box) => `run=${box.value}`);
      location.href = at(`runs/compare?${chosen.join('&')}`);
    }
    const stopper = event.target.closest('[data-cancel]');
    if (stopper) {
      stopper.disabled = true;
      post(`${branch()}/runs/${stopper.dataset.cancel}/cancel`);
    }
  });
  document.addEventListener('change', (event) => {
    if (event.target.matches('[data-chosen-run]')) {
      chooseRuns();
    }
  });
  document
    .querySelectorAll('[data-progress]')
    .forEach((bar) => showProgress({ id: bar.dataset.progress, fraction: Number(bar.dataset.fraction) }));
  onRun(showProgress);
  onRefresh(chooseRuns);
  showDifference();
  onRefresh(showDifference);
}
