// Hand cues as they are played: by any number of fingers, by the mouse, by typing what stands on a key.
import { baton } from '../js/baton.js';
const STILL_HELD_MS = 400;

/** As they stand now: an edit draws them anew. */
const keys = () => [.../** @type {NodeListOf<HTMLButtonElement>} */ (document.querySelectorAll('.key'))];
const typed = document.getElementById('typed');

// ---- pressing and letting go, whatever does it

const held = new Map(); // by key, those who hold it

function press(key, by) {
  const hands = held.get(key) || new Set();
  if (hands.has(by)) return;
  hands.add(by);
  held.set(key, hands);
  key.classList.add('down');
  if (hands.size === 1) baton.order(`touch ${key.dataset.key}`);
}

function letGo(key, by) {
  const hands = held.get(key);
  if (!hands?.delete(by) || hands.size) return;
  held.delete(key);
  key.classList.remove('down');
  if (key.dataset.way === 'HELD') baton.order(`let ${key.dataset.key}`);
}

const letAllGo = () => held.forEach((hands, key) => [...hands].forEach((by) => letGo(key, by)));

// As long as it is held the application is told so; silence lets it go.
setInterval(
  () =>
    held.forEach((hands, key) => {
      if (key.dataset.way === 'HELD') baton.order(`hold ${key.dataset.key}`);
    }),
  STILL_HELD_MS,
);
window.addEventListener('pagehide', letAllGo);
window.addEventListener('blur', letAllGo);
document.addEventListener('visibilitychange', () => {
  if (document.hidden) letAllGo();
});
document.addEventListener('line', (e) => {
  if (!e.detail.there) letAllGo();
});

// ---- fingers and mouse

const keyOf = (e) => /** @type {HTMLButtonElement} */ (e.target.closest?.('.key'));
document.addEventListener('pointerdown', (e) => {
  const key = keyOf(e);
  if (!key || key.disabled || e.button) return;
  if (e.isTrusted) key.setPointerCapture(e.pointerId);
  press(key, `pointer ${e.pointerId}`);
});
for (const end of ['pointerup', 'pointercancel', 'lostpointercapture']) {
  document.addEventListener(end, (/** @type {PointerEvent} */ e) =>
    held.forEach((hands, key) => letGo(key, `pointer ${e.pointerId}`)),
  );
}
document.addEventListener('contextmenu', (e) => keyOf(e) && e.preventDefault());

// ---- the keyboard: digits, or Enter on the key that has focus

let row = '';
const show = (words) => {
  typed.textContent = words;
  keys().forEach((key) =>
    key.classList.toggle(
      'row-typed',
      row !== '' && key.dataset.digits.length > 1 && key.dataset.digits.startsWith(row),
    ),
  );
};

function digit(e) {
  const all = keys();
  const key = all.find((k) => k.dataset.digits === row + e.key);
  if (key) {
    press(key, `key ${e.code}`);
    row = '';
    show('');
  } else if (!row && all.some((k) => k.dataset.digits.length > 1 && k.dataset.digits.startsWith(e.key))) {
    row = e.key;
    show(`row ${row}: type the place in it, or Esc`);
  } else {
    row = '';
    show(`No key has the number ${e.key}.`);
  }
}

document.addEventListener('keydown', (e) => {
  if (e.ctrlKey || e.metaKey || e.altKey || baton.typing(e)) return;
  if (e.key === 'Escape') {
    row = '';
    show('');
    return;
  }
  const focused = e.target.closest('.key');
  if (focused && (e.key === 'Enter' || e.key === ' ')) {
    e.preventDefault();
    if (!e.repeat) press(focused, `key ${e.code}`);
    return;
  }
  if (/^[0-9]$/.test(e.key)) {
    e.preventDefault();
    if (!e.repeat) digit(e);
  }
});
document.addEventListener('keyup', (e) => held.forEach((hands, key) => letGo(key, `key ${e.code}`)));

// ---- what the machines were told, by whatever

let told = { lights: {}, asks: {} };
const light = () =>
  keys().forEach((key) => {
    const is = told.lights[key.dataset.key];
    key.disabled = is === undefined;
    if (key.disabled) return;
    ['on', 'off', 'unknown'].forEach((name) => key.classList.toggle(name, name === is));
    key.setAttribute('aria-pressed', String(is === 'on'));
    ask(
      key,
      told.asks[key.dataset.key] || 0,
      { on: ', is on', off: ', is off' }[key.dataset.way === 'PRESS' ? '' : is] || '',
    );
  });
document.addEventListener('live', (/** @type {CustomEvent} */ e) => {
  if (e.detail.topic === 'hands') told = JSON.parse(e.detail.data);
  if (e.detail.topic === 'hands' || e.detail.topic.startsWith('keys:')) light();
});

function ask(key, ms, stands) {
  clearTimeout(key.asking);
  key.classList.toggle('asks', ms > 0);
  const way = key.querySelector('small');
  way.dataset.words ??= way.textContent;
  way.textContent = ms > 0 ? 'guarded: touch it again' : way.dataset.words + stands;
  if (ms > 0) key.asking = setTimeout(() => ask(key, 0, stands), ms);
}
