// New lines are fetched when the wire says so, with the filters as they stand; pause holds the page still, not the log.
import { baton } from '../js/baton.js';
import { does } from '../js/keys.js';
const rows = document.getElementById('rows');
/** @type {HTMLFormElement} */
const filters = /** @type {any} */ (document.getElementById('filters'));
const pause = document.getElementById('pause');
const MOST_ROWS = 1000;
let paused = false;
let fetching = false;
let again = false;
let kept = 0;

// The steps of one move are one line that opens: its newest step stands for them all.
const SAME_MOVE_MICROS = 2_000_000;
const FEWEST = 3;
const open = new Set();
const opener = (row, key, count) => {
  const button =
    row.querySelector('.steps') ||
    Object.assign(document.createElement('button'), { type: 'button', className: 'word steps' });
  const words = open.has(key) ? 'fold' : `and ${count} steps before it`;
  if (button.textContent !== words) button.textContent = words;
  button.dataset.key = key;
  button.setAttribute('aria-expanded', open.has(key));
  if (!button.parentElement) row.children[3].append(' ', button);
};
const fold = () => {
  const moves = new Map();
  rows.querySelectorAll('tr[data-move]').forEach((row) => {
    const known = moves.get(row.dataset.move)?.at(-1);
    const goesOn = known && known.at(-1).dataset.micros - Number(row.dataset.micros) < SAME_MOVE_MICROS;
    if (goesOn) known.push(row);
    else moves.set(row.dataset.move, [...(moves.get(row.dataset.move) || []), [row]]);
  });
  for (const [newest, ...steps] of [...moves.values()].flat()) {
    const key = `${newest.dataset.move} ${(steps.at(-1) || newest).dataset.number}`;
    const folds = steps.length + 1 >= FEWEST;
    if (folds) opener(newest, key, steps.length);
    else newest.querySelector('.steps')?.remove();
    newest.classList.remove('step');
    steps.forEach((s) => {
      s.querySelector('.steps')?.remove();
      s.classList.toggle('step', folds && !open.has(key));
    });
  }
};
rows.addEventListener('click', (e) => {
  const key = e.target.closest('.steps')?.dataset.key;
  if (key && !open.delete(key)) open.add(key);
  if (key) fold();
});

const fetchNew = async () => {
  if (paused) return;
  if (fetching) {
    again = true;
    return;
  }
  fetching = true;
  const after = rows.querySelector('tr[data-number]')?.dataset.number || '0';
  const query = new URLSearchParams(/** @type {any} */ (new FormData(filters)));
  query.set('after', after);
  const response = await fetch(`/shows/${baton.show}/log/rows?${query}`).catch(() => null);
  if (response?.ok) {
    const html = await response.text();
    const newest = rows.querySelector('tr[data-number]')?.dataset.number || '0';
    if (newest === after) {
      rows.insertAdjacentHTML('afterbegin', html);
      fold();
    }
    while (rows.children.length > Math.max(MOST_ROWS, kept)) rows.lastElementChild.remove();
  }
  fetching = false;
  if (again) {
    again = false;
    fetchNew();
  }
};

// Older lines come from the database, behind the last one that stands here.
rows.addEventListener('click', async (e) => {
  const button = e.target.closest('[data-older]');
  if (!button) return;
  const numbers = rows.querySelectorAll('tr[data-number]');
  const query = new URLSearchParams(/** @type {any} */ (new FormData(filters)));
  query.set('before', numbers[numbers.length - 1].dataset.number);
  const response = await baton.ask(`/shows/${baton.show}/log/rows?${query}`);
  if (!response) return;
  button.closest('tr').remove();
  rows.insertAdjacentHTML('beforeend', await response.text());
  kept = rows.children.length;
  fold();
});
rows.addEventListener('htmx:afterSettle', fold);
fold();

const toggle = () => {
  paused = !paused;
  pause.setAttribute('aria-pressed', String(paused));
  pause.querySelector('span').textContent = paused ? 'paused; go on' : 'pause';
  fetchNew();
};

document.addEventListener('live', (e) => {
  if (e.detail.topic === 'log') fetchNew();
});
does({ pause: toggle });
