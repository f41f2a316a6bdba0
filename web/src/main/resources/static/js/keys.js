// What a pressed key means on this page, by the one table of keys and by what was bound anew here. A key does what the thing
// that carries its action does when it is pressed (data-act), or what a script has said of the action (does).
import { baton } from './baton.js';
import { EVERYWHERE, KEYS } from './keytable.js';

const page = document.body.dataset.keys;
export const table = { ...KEYS[page], ...EVERYWHERE };

// ---- names

/** Enter, n, Shift k, Ctrl Shift c, Alt ArrowUp: a letter small, with Ctrl for Cmd too. Only a letter tells of Shift: a sign is the sign on any keyboard. */
export const named = (e) => {
  const sign = e.key.length === 1 && !/\p{L}/u.test(e.key) && e.key !== ' ';
  const ctrl = e.ctrlKey || e.metaKey;
  return [
    ctrl && 'Ctrl',
    e.altKey && 'Alt',
    e.shiftKey && !sign && 'Shift',
    e.key.length === 1 ? e.key.toLowerCase() : e.key,
  ]
    .filter(Boolean)
    .join(' ');
};

const SHORT = {
  Escape: 'Esc',
  Delete: 'Del',
  Insert: 'Ins',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  '': 'Space',
  '-': '−',
};
/** As it stands on a key. */
export const printed = (key) =>
  (key === ' ' ? [''] : key.split(' '))
    .map((part) => SHORT[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' ');

// ---- what is bound

const storeOf = (action) => `baton-${action in EVERYWHERE ? 'all' : page}-keys`;
const kept = (store) => {
  try {
    return JSON.parse(localStorage.getItem(store)) || {};
  } catch {
    return {};
  }
};
let own = { ...kept(`baton-${page}-keys`), ...kept('baton-all-keys') };

export const keysOf = (action) => (own[action] && !table[action].fixed ? [own[action]] : table[action]?.keys || []);
export const actionOf = (key) => Object.keys(table).find((action) => keysOf(action).includes(key));

/** The action of a pressed key; a letter that means nothing with Shift means what it means alone. */
export const meaning = (e) => {
  const name = e.key ? named(e) : '';
  return actionOf(name) || (/^Shift .$/.test(name) ? actionOf(name.slice(-1)) : undefined);
};

export const bind = (action, key) => {
  own[action] = key;
  localStorage.setItem(storeOf(action), JSON.stringify({ ...kept(storeOf(action)), [action]: key }));
  drawAll();
};
export const bindAsBefore = () => {
  own = {};
  localStorage.removeItem(`baton-${page}-keys`);
  localStorage.removeItem('baton-all-keys');
  drawAll();
};

// ---- the keys printed in the page: <key-of act="go"></key-of>

const drawAll = () => document.querySelectorAll('key-of').forEach((/** @type {any} */ e) => e.draw());

// What is printed stands in a tree of its own, so that a page drawn anew by the server does not wipe it.
customElements.define(
  'key-of',
  class extends HTMLElement {
    connectedCallback() {
      if (!this.shadowRoot) this.attachShadow({ mode: 'open' });
      this.draw();
    }

    draw() {
      this.shadowRoot.replaceChildren(
        ...keysOf(this.getAttribute('act'))
          .slice(0, 1)
          .map((key) => {
            const cap = Object.assign(document.createElement('kbd'), { textContent: printed(key) });
            cap.part = 'cap';
            return cap;
          }),
      );
    }
  },
);

// ---- acting

const acts = {};
/** @param more by the action's name, what it does; it gets the event, and answers false where it had nothing to do */
export const does = (more) => Object.assign(acts, more);

const carrier = (action) => document.querySelector(`[data-act="${action}"]`);
const press = (element) => {
  if (element.matches('input, select, textarea')) {
    element.focus();
    element.select?.();
  } else element.click();
};

/** A button that has focus is pressed by these itself. */
export const ofButton = (e) => (e.key === 'Enter' || e.key === ' ') && e.target.closest('button, a, summary') !== null;

document.addEventListener('keydown', (e) => {
  // No text is written by F1.
  const writes = e.key?.length === 1 || e.target.closest('dialog') !== null || !/^F\d/.test(e.key);
  if (e.defaultPrevented || !e.key || (writes && baton.typing(e))) return;
  const action = meaning(e);
  // Whoever went to a link by keyboard means it. A button may have its focus from a sheet that has closed: there Enter is GO.
  if (
    !action ||
    (ofButton(e) && (!table[action].always || e.target.matches('a[href]:focus-visible, summary:focus-visible')))
  )
    return;
  const element = carrier(action);
  if (acts[action]) {
    if (acts[action](e) === false) return;
  } else if (element) {
    if (!e.repeat) press(element);
  } else return;
  e.preventDefault();
});
document.addEventListener('click', (e) => {
  const action = e.target.closest('[data-act]')?.dataset.act;
  if (acts[action]) acts[action](e);
});
