// Several phrases at once: chosen by Space, or by pressing them with Shift or Ctrl, and then changed or deleted together.
import { baton } from '../js/baton.js';

const form = () => document.querySelector('.several');
const entries = () => [...document.querySelectorAll('.entry')];
const chosen = () => entries().filter((entry) => 'chosen' in entry.dataset);
let from = null; // where a stretch begins

const show = () => {
  const count = chosen().length;
  form().hidden = count === 0;
  form().querySelector('[data-count]').textContent = count === 1 ? '1 phrase' : `${count} phrases`;
};
const mark = (entry, is) => {
  if (is) entry.dataset.chosen = 'yes';
  else delete entry.dataset.chosen;
};

export const choose = (entry) => {
  mark(entry, !('chosen' in entry.dataset));
  from = entry;
  show();
};

/** From the last one that was chosen to this one. */
const stretchTo = (entry) => {
  const all = entries();
  const [first, last] = [all.indexOf(from), all.indexOf(entry)].sort((a, b) => a - b);
  all.slice(Math.max(0, first), last + 1).forEach((e) => mark(e, true));
  show();
};

/** Answers whether there was anything to let go. */
export const leaveSeveral = () => {
  const all = chosen();
  all.forEach((entry) => mark(entry, false));
  if (form()) show();
  return all.length > 0;
};

/** Answers whether the press was for choosing. */
export const pressed = (entry, e) => {
  if (e.shiftKey && from) stretchTo(entry);
  else if (e.ctrlKey || e.metaKey) choose(entry);
  else return false;
  return true;
};

document.addEventListener('htmx:configRequest', (e) => {
  if (e.detail.elt === form()) e.detail.parameters.phrases = chosen().map((entry) => entry.dataset.phrase);
});
document.addEventListener('click', (e) => {
  if (e.target.closest('[data-leave-several]')) leaveSeveral();
  if (!e.target.closest('[data-delete-several]')) return;
  const used = chosen().filter((entry) => Number(entry.dataset.used) > 0).length;
  const question = `Delete ${chosen().length} phrases? ${used === 1 ? '1 of them is' : `${used} of them are`} called by cues, which will lose them. Undo brings them back.`;
  if (used && !window.confirm(question)) return;
  const { at } = document.querySelector('.phrases').dataset;
  htmx
    .ajax('POST', `${at}/phrases/several/delete`, {
      source: form(),
      target: '#phrases',
      swap: 'morph',
      values: { phrases: chosen().map((entry) => entry.dataset.phrase) },
    })
    .catch(() => baton.tell(null));
});
