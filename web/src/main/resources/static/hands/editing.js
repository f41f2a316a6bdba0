// Hand cues as they are made: written, copied, moved. Nothing here reaches a machine.
import { baton } from '../js/baton.js';
import { does } from '../js/keys.js';

const place = document.getElementById('hands');
const keyDialog = document.getElementById('key');

const body = () => place.querySelector('.hands');
const page = () => body().dataset.page;
const path = (rest) => `/shows/${baton.show}/hands${rest}`;
const at = () => document.activeElement?.closest?.('.place') || document.getElementById('place-0-0');
const where = (p) => ({ page: page() || 0, row: p?.dataset.row || 0, column: p?.dataset.column || 0 });
const change = (rest, values) =>
  htmx.ajax('POST', path(rest), { source: place, target: place, swap: 'morph', values }).catch(() => {});

place.addEventListener('htmx:afterSettle', (e) => {
  if (e.detail.target !== place) return;
  history.replaceState(null, '', path(page() ? `/edit?page=${page()}` : '/edit'));
  document.getElementById('play').href = path(page() ? `?page=${page()}` : '');
  // A page that was just made is written into next, once its dialog has shut.
  if (e.detail.requestConfig?.path.endsWith('/hands/pages'))
    setTimeout(() => document.getElementById('place-0-0')?.focus());
  const left = document.getElementById('left');
  if (left) baton.left(left);
  else if (body().dataset.done) baton.say(body().dataset.done);
});
document.addEventListener('step', (e) => {
  e.preventDefault();
  change(`/${e.detail.step}`, { page: page() || 0 });
});

// ---- writing a key

function fit(form) {
  const press = form.elements.way.value === 'PRESS';
  const off = form.querySelector('[data-calls=off]');
  off.hidden = press;
  form.querySelector('[data-on]').textContent = {
    PRESS: 'It calls',
    ON_OFF: 'On, it calls',
    HELD: 'Held down, it calls',
  }[form.elements.way.value];
  form.querySelector('[data-off]').textContent = { PRESS: '', ON_OFF: 'Off, it calls', HELD: 'Let go, it calls' }[
    form.elements.way.value
  ];
  form
    .querySelectorAll('.call')
    .forEach((call) =>
      call.querySelector('[data-says]').setAttribute('list', `says-${call.querySelector('[data-machine]').value}`),
    );
}

function write(p) {
  keyDialog.showModal();
  htmx
    .ajax('GET', path(`/form?${new URLSearchParams(/** @type {any} */ (where(p)))}`), {
      target: keyDialog,
      swap: 'innerHTML',
    })
    .catch(() => {});
}
keyDialog.addEventListener('htmx:afterSwap', () => fit(keyDialog.querySelector('form')));

const calls = (form, list) =>
  [...form.querySelectorAll(`[data-calls=${list}] .call`)]
    .map((call) => `${call.querySelector('[data-machine]').value} ${call.querySelector('[data-says]').value.trim()}`)
    .filter((line) => line.includes(' ') && !line.endsWith(' '))
    .join('\n');

keyDialog.addEventListener('change', (e) => fit(e.target.form));
keyDialog.addEventListener('click', (e) => {
  const more = e.target.closest('[data-more]');
  const less = e.target.closest('[data-less]');
  const learn = e.target.closest('[data-learn]');
  if (learn) learnSignal(learn);
  if (more) {
    const rows = more.parentElement.querySelectorAll('.call');
    const fresh = rows[rows.length - 1].cloneNode(true);
    fresh.querySelector('[data-says]').value = '';
    more.before(fresh);
    fit(more.form);
    fresh.querySelector('select').focus();
  }
  if (less) {
    const row = less.closest('.call');
    if (row.parentElement.querySelectorAll('.call').length > 1) row.remove();
    else row.querySelector('[data-says]').value = '';
  }
});
document.addEventListener('htmx:configRequest', (e) => {
  if (e.detail.elt.matches('.key-form'))
    Object.assign(e.detail.parameters, { on: calls(e.detail.elt, 'on'), off: calls(e.detail.elt, 'off') });
});

// ---- a pad that works it too

const LEARN_MS = 15000;
async function learnSignal(button) {
  const told = button.parentElement.querySelector('.learnt');
  const came = await baton.ask(path('/came'));
  if (!came) return;
  const after = await came.text();
  button.disabled = true;
  told.textContent = 'waits for a touch…';
  for (const end = Date.now() + LEARN_MS; Date.now() < end && keyDialog.open;) {
    const answer = await baton.post(path(`/keys/${button.dataset.learn}/learn`), { after });
    if (!answer || answer.status === 200) {
      told.textContent = answer ? `learnt: ${await answer.text()}` : '';
      button.disabled = false;
      return;
    }
    await new Promise((later) => {
      setTimeout(later, 250);
    });
  }
  button.disabled = false;
  told.textContent = 'nothing was touched; press it again, then touch the pad';
}

// ---- the clipboard

// What was cut is known on the other pages too.
const CUT = 'baton-cut-key';
let copying = Promise.resolve(); // whoever pastes at once waits for what was just copied
// A page that did not come over a secure line has no clipboard, and one that has may not be let to read it.
async function written(text, words) {
  localStorage.setItem('baton-copied', text);
  try {
    await navigator.clipboard.writeText(text);
  } catch {
    /* then it is pasted from what is kept here */
  }
  baton.say(words);
}
const copy = (text, words) => {
  copying = written(text, words);
};
async function copied() {
  await copying;
  try {
    return await navigator.clipboard.readText();
  } catch {
    return localStorage.getItem('baton-copied') || '';
  }
}

async function paste() {
  const keys = await copied();
  const source = JSON.parse(sessionStorage.getItem(CUT) || 'null');
  sessionStorage.removeItem(CUT);
  if (source && source.text === keys && source.show === baton.show) {
    await change(`/keys/${source.key}/move`, where(at()));
  } else {
    await change('/paste', { ...where(at()), keys });
  }
}

// ---- what keys and buttons do

document.addEventListener('click', (e) => {
  const p = e.target.closest('.place');
  if (p) {
    p.focus();
    if (e.detail !== 1 || !p.dataset.key) write(p);
  }
});

const beside = (p, [down, right]) =>
  document.getElementById(`place-${Number(p.dataset.row) + down}-${Number(p.dataset.column) + right}`);

async function moveKey(p, to) {
  if (!to || !p.dataset.key) return;
  await change(`/keys/${p.dataset.key}/move`, where(to));
  document.getElementById(to.id).focus();
}

const cut = (p) => {
  sessionStorage.setItem(CUT, JSON.stringify({ key: p.dataset.key, text: p.dataset.copy, show: baton.show }));
  copy(p.dataset.copy, 'The key is cut: paste it where it shall be.');
};

const atAPlace =
  (act, keyed = true) =>
  (e) => {
    const p = e.target.closest('.place');
    if (!p || (keyed && !p.dataset.key)) return false;
    act(p);
    return true;
  };
const goes = (by) => atAPlace((p) => beside(p, by)?.focus(), false);
const moved = (by) => atAPlace((p) => moveKey(p, beside(p, by)));

does({
  copyPage: () => {
    copy(body().dataset.copy, 'The page is copied.');
  },
  up: goes([-1, 0]),
  down: goes([1, 0]),
  left: goes([0, -1]),
  right: goes([0, 1]),
  moveUp: moved([-1, 0]),
  moveDown: moved([1, 0]),
  moveLeft: moved([0, -1]),
  moveRight: moved([0, 1]),
  copy: atAPlace((p) => copy(p.dataset.copy, 'The key is copied.')),
  cut: atAPlace(cut),
  paste: () => {
    paste();
  },
  remove: atAPlace((p) => change(`/keys/${p.dataset.key}/delete`)),
});

// ---- dragged to another place

let dragged = null;
place.addEventListener('dragstart', (e) => {
  dragged = e.target.closest('.place');
});
place.addEventListener('dragover', (e) => {
  const over = e.target.closest('.place');
  if (dragged && over) e.preventDefault();
  place.querySelectorAll('.over').forEach((o) => o !== over && o.classList.remove('over'));
  over?.classList.add('over');
});
place.addEventListener('drop', (e) => {
  e.preventDefault();
  const to = e.target.closest('.place');
  if (dragged) moveKey(dragged, to);
  dragged = null;
});
place.addEventListener('dragend', () => {
  dragged = null;
  place.querySelectorAll('.over').forEach((o) => o.classList.remove('over'));
});
