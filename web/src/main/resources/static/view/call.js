// The caller's page: a GO under the thumb, and a stop that wants to be held.
import './view.js';
import { baton } from '../js/baton.js';

const HELD_MILLIS = 600;

document.addEventListener('click', (e) => {
  const button = /** @type {HTMLElement} */ (e.target).closest('[data-order]');
  if (!button) return;
  baton.order(/** @type {HTMLElement} */ (button).dataset.order);
  /** @type {HTMLElement} */ (button).blur();
});

const stop = /** @type {HTMLElement} */ (document.querySelector('[data-held]'));
let held = 0;
const release = () => {
  clearTimeout(held);
  stop.classList.remove('holding');
};
stop?.addEventListener('pointerdown', () => {
  stop.classList.add('holding');
  held = setTimeout(() => {
    baton.order(stop.dataset.held);
    release();
  }, HELD_MILLIS);
});
for (const end of ['pointerup', 'pointerleave', 'pointercancel']) stop?.addEventListener(end, release);
stop?.addEventListener('contextmenu', (e) => e.preventDefault());

// A note is of the moment at which it is begun.
document.querySelector('[data-note]')?.addEventListener('click', async () => {
  const sheet = await baton.ask(`/shows/${baton.show}/desk/note`);
  if (!sheet) return;
  const dialog = /** @type {HTMLDialogElement} */ (document.getElementById('catch-up'));
  dialog.innerHTML = await sheet.text();
  htmx.process(dialog);
  dialog.showModal();
  /** @type {HTMLElement} */ (dialog.querySelector('[name=words]')).focus();
});
