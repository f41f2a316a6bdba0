// What all pages share: the notice line, dialogs, keys that stand where they act, what becomes of a request.
import { named } from './keys.js';

// An open dialog covers the page, so its refusals are told inside it.
const notice = () => {
  const dialog = document.querySelector('dialog[open]');
  if (!dialog) return document.getElementById('notice');
  return dialog.querySelector('.notice-place') || dialog.appendChild(Object.assign(document.createElement('div'), { className: 'notice-place' }));
};

export const baton = {
  show: document.body.dataset.show,

  /** Posts a form's fields; answers true when it was done, and shows the notice when it was not. */
  async post(path, fields = {}) {
    const response = await fetch(path, { method: 'POST', body: new URLSearchParams(fields) }).catch(() => null);
    if (response && response.ok) { this.clear(); return response; }
    const words = response ? await response.text() : '';
    this.tell(words.includes('class="notice') ? words : null);
    return null;
  },

  tell(html) {
    notice().innerHTML = html || `<div class="notice" role="alert"><p>Under Baton does not answer. Is it still running? Start it with ./baton demo or ./baton start, then try again.</p></div>`;
    htmx.process(notice());
    const field = notice().querySelector('[data-field]')?.dataset.field;
    document.querySelectorAll('.wrong').forEach((e) => e.classList.remove('wrong'));
    if (field) document.querySelector(`form.sent [name="${CSS.escape(field)}"], .editing [name="${CSS.escape(field)}"]`)?.classList.add('wrong');
  },

  /** Something that was not done, in words. */
  refuse(words) {
    this.tell('<div class="notice" role="alert"><p></p><button class="word" type="button" data-close>close <kbd>Esc</kbd></button></div>');
    notice().querySelector('p').textContent = words;
  },

  say(words) {
    notice().innerHTML = '<div class="notice plain" role="status"><p></p></div>';
    notice().querySelector('p').textContent = words;
    clearTimeout(this.fading);
    this.fading = setTimeout(() => this.clear(), 4000);
  },

  /** What was done and what of it could not be; it stays until it is closed. */
  left(template) {
    this.tell(`<div class="notice plain" role="status"><div>${template.innerHTML}</div><button class="word" type="button" data-close>close <kbd>Esc</kbd></button></div>`);
  },

  clear() { notice().innerHTML = ''; document.querySelectorAll('.wrong').forEach((e) => e.classList.remove('wrong')); },

  /** Whether a key was pressed in such an element; one of a dialog just closed keeps the focus until the page is drawn again, and does not count. */
  pressedIn(event, selector) {
    const element = event.target.closest(selector);
    return element !== null && element.closest('dialog:not([open])') === null;
  },

  typing(event) { return this.pressedIn(event, 'input, textarea, select, dialog, [contenteditable]'); },
};

// A refusal comes with a status of 4xx or 503 and belongs into the notice line, wherever the request aimed.
document.addEventListener('htmx:beforeRequest', (e) => {
  document.querySelectorAll('form.sent').forEach((f) => f.classList.remove('sent'));
  e.detail.elt.closest('form')?.classList.add('sent');
});
document.addEventListener('htmx:beforeSwap', (e) => {
  const status = e.detail.xhr.status;
  if (status >= 400) {
    e.detail.shouldSwap = false;
    baton.tell(e.detail.xhr.responseText.includes('class="notice') ? e.detail.xhr.responseText : null);
  } else if (e.detail.requestConfig.verb === 'post') {
    baton.clear();
  }
});
document.addEventListener('htmx:sendError', () => baton.tell(null));
document.addEventListener('click', (e) => {
  if (e.target.closest('[data-close]')) baton.clear();
  if (e.target.closest('[data-close-dialog]')) e.target.closest('dialog')?.close();
  const opener = e.target.closest('[data-opens]');
  if (opener) document.getElementById(opener.dataset.opens)?.showModal();
});
// Keys that stand where they act: they press a button, or put the writing into a field.
const act = (element) => {
  if (element.matches('input, select, textarea')) { element.focus(); element.select?.(); } else element.click();
};
document.addEventListener('keydown', (e) => {
  if (e.key === 'Escape') baton.clear();
  const name = named(e);
  if (name === 'Ctrl Enter' && e.target.matches('textarea')) { e.preventDefault(); e.target.form?.requestSubmit(); return; }
  // A choice is left by Enter as a field is.
  const button = name === 'Enter' && e.target.matches('select') && e.target.form?.querySelector('button:not([type=button])');
  if (button) { e.preventDefault(); e.target.form.requestSubmit(button); return; }
  const element = !baton.typing(e) && document.querySelector(`[data-hotkey="${CSS.escape(name)}"]`);
  if (element) { e.preventDefault(); act(element); }
});
// A file is sent as soon as it is chosen.
document.addEventListener('change', (e) => { if (e.target.matches('[data-sends]')) e.target.form.requestSubmit(); });
document.addEventListener('htmx:afterRequest', (e) => {
  if (!e.detail.successful) return;
  if (e.detail.elt.matches('[data-empties-when-done]')) e.detail.elt.reset();
  if (e.detail.elt.matches('[data-closes-when-done]')) e.detail.elt.closest('dialog').close();
  // A dialog that closes gives the focus back; what it has brought asks for it.
  e.detail.target.querySelector('[autofocus]:not(:disabled)')?.focus();
});
document.addEventListener('submit', (e) => {
  if (e.target.matches('[data-not-sent]')) e.preventDefault();
  const question = e.target.dataset.ask;
  if (question && !window.confirm(question)) e.preventDefault();
});
