// What all pages share: the notice line, dialogs, what becomes of a request.

// An open dialog covers the page, so its refusals are told inside it.
const notice = () => {
  const dialog = document.querySelector('dialog[open]');
  if (!dialog) return document.getElementById('notice');
  return (
    dialog.querySelector('.notice-place') ||
    dialog.appendChild(Object.assign(document.createElement('div'), { className: 'notice-place' }))
  );
};

/** Through the venue's door a change shows that it comes from a page of ours. */
const token = () => {
  const value = document.cookie.match(/(?:^|; )XSRF-TOKEN=([^;]+)/)?.[1];
  return value ? { 'X-XSRF-TOKEN': value } : {};
};
document.addEventListener('htmx:configRequest', (e) => Object.assign(e.detail.headers, token()));
document.addEventListener(
  'submit',
  (e) => {
    const form = /** @type {HTMLFormElement} */ (e.target);
    const value = token()['X-XSRF-TOKEN'];
    if (!value || form.elements.namedItem('_csrf')) return;
    form.append(Object.assign(document.createElement('input'), { type: 'hidden', name: '_csrf', value }));
  },
  true,
);

/** Whoever has not answered by then does not; htmx waits as long (page/head). */
const PATIENCE_MS = 30000;

/** Its words, where somebody of ours says what is wrong. */
const noticeOf = (html) => (html.includes('class="notice') ? html : null);
const unmark = () =>
  document.querySelectorAll('.is-invalid').forEach((e) => {
    e.classList.remove('is-invalid');
    e.removeAttribute('aria-invalid');
  });

// What was told last, as a notice or in words: a short one is gone before it is read by whoever looks at the stage.
let last = '';
const plain = (html) =>
  `<div class="notice plain" role="status"><div>${html}</div>
    <button class="word" type="button" data-close>close <kbd>Esc</kbd></button></div>`;
const remember = (told) => {
  if (told?.matches('.notice')) last = told.outerHTML;
  const tools = document.querySelector('.head .right');
  if (!last || !tools || tools.querySelector('[data-last]')) return;
  const button = Object.assign(document.createElement('button'), { className: 'word', textContent: 'last message' });
  button.dataset.last = '';
  tools.querySelector('[data-act=keys]')?.before(button, ' ');
};

export const baton = {
  show: document.body.dataset.show,
  behind: 0, // by how much the clock here is behind that of Under Baton, ms

  /** The time by the clock of Under Baton, ms: a drawing may come late, and clocks of two machines differ. */
  now() {
    return Date.now() + this.behind;
  },

  /** Asks for something: the answer, or null when it was refused or nobody answers, which is told then. */
  async ask(path, how = {}) {
    const response = await fetch(path, {
      ...how,
      headers: { 'Baton-Page': 'yes', ...token() },
      signal: AbortSignal.timeout(PATIENCE_MS),
    }).catch(() => null);
    if (response?.ok && !response.headers.has('Baton-Refused')) return response;
    this.tell(response && noticeOf(await response.text()));
    return null;
  },

  /** Posts a form's fields; the answer, or null as with ask. */
  async post(path, fields = {}) {
    const response = await this.ask(path, { method: 'POST', body: new URLSearchParams(fields) });
    if (response) this.clear();
    return response;
  },

  tell(html) {
    notice().innerHTML =
      html ||
      `<div class="notice fault" role="alert"><p>Under Baton does not answer. Is it still running? Start it with ./baton demo or ./baton start, then try again.</p></div>`;
    htmx.process(notice());
    unmark();
    (notice().querySelector('[data-fields]')?.dataset.fields || '')
      .split(' ')
      .filter(Boolean)
      .forEach((field) => {
        const wrong = document.querySelector(
          `form.sent [name="${CSS.escape(field)}"]:not(:disabled), .editing [name="${CSS.escape(field)}"]`,
        );
        wrong?.classList.add('is-invalid');
        wrong?.setAttribute('aria-invalid', 'true');
        // What is rarely wanted is offered when it is what is missing.
        wrong?.closest('[data-when-refused]')?.removeAttribute('hidden');
      });
  },

  /** Something that was not done, in words. */
  refuse(words) {
    this.tell(
      '<div class="notice" role="alert"><p></p><button class="word" type="button" data-close>close <kbd>Esc</kbd></button></div>',
    );
    notice().querySelector('p').textContent = words;
  },

  say(words) {
    this.clear();
    last = plain(Object.assign(document.createElement('p'), { textContent: words }).outerHTML);
    remember(null);
    const toast = Object.assign(document.createElement('div'), {
      className: 'toast',
      textContent: words,
      role: 'status',
    });
    toast.addEventListener('hidden.bs.toast', () => toast.remove());
    notice().replaceChildren(toast);
    new bootstrap.Toast(toast, { animation: false, delay: 4000 }).show();
  },

  /** What was done and what of it could not be; it stays until it is closed. */
  left(template) {
    this.tell(plain(template.innerHTML));
  },

  clear() {
    remember(notice().firstElementChild);
    notice().replaceChildren();
    unmark();
  },

  /** Whether a key was pressed in such an element; one of a dialog just closed keeps the focus until the page is drawn again, and does not count. */
  pressedIn(event, selector) {
    const element = event.target.closest(selector);
    return element !== null && element.closest('dialog:not([open])') === null;
  },

  typing(event) {
    return this.pressedIn(event, 'input, textarea, select, dialog, [contenteditable]');
  },
};

// A refusal says so in a header, a fault comes with a status of 5xx; both belong into the notice line, wherever the request aimed.
document.addEventListener('htmx:beforeRequest', (e) => {
  document.querySelectorAll('form.sent').forEach((f) => f.classList.remove('sent'));
  e.detail.elt.closest('form')?.classList.add('sent');
});
const refused = (xhr) => xhr.status >= 400 || xhr.getResponseHeader('Baton-Refused') !== null;
document.addEventListener('htmx:beforeSwap', (e) => {
  const { xhr } = e.detail;
  if (refused(xhr)) {
    e.detail.shouldSwap = false;
    baton.tell(noticeOf(xhr.responseText));
    document.dispatchEvent(new CustomEvent('refused', { detail: { xhr } }));
  } else if (e.detail.requestConfig.verb === 'post') {
    baton.clear();
  }
});
for (const silence of ['htmx:sendError', 'htmx:timeout']) document.addEventListener(silence, () => baton.tell(null));
document.addEventListener('click', (e) => {
  if (e.target.closest('[data-last]')) {
    baton.tell(last);
    return;
  }
  if (e.target.closest('[data-close]')) baton.clear();
});
document.addEventListener('keydown', (e) => {
  if (e.key === 'Escape') baton.clear();
  if (e.key === 'Enter' && (e.ctrlKey || e.metaKey) && e.target.matches('textarea')) {
    e.preventDefault();
    e.target.form?.requestSubmit();
    return;
  }
  // A choice is left by Enter as a field is.
  const button =
    e.key === 'Enter' && e.target.matches('select') && e.target.form?.querySelector('button:not([type=button])');
  if (button) {
    e.preventDefault();
    e.target.form.requestSubmit(button);
  }
});
// What was fetched into a dialog is old when it is opened again.
document.addEventListener(
  'close',
  (e) => {
    if (e.target.matches('dialog[data-fetched]')) e.target.replaceChildren();
  },
  true,
);
// What a dialog begins with is written over.
document.addEventListener('focusin', (e) => {
  if (e.target.matches('dialog input[autofocus]')) e.target.select();
});
// A file is sent as soon as it is chosen.
document.addEventListener('change', (e) => {
  if (e.target.matches('[data-sends]')) e.target.form.requestSubmit();
});
// What is pasted into a table's box is a file like one that was chosen.
document.addEventListener('input', (e) => {
  if (!e.target.matches('[data-pasted]')) return;
  /** @type {HTMLInputElement} */
  const chosen = e.target.form.querySelector('input[type=file]');
  const files = new DataTransfer();
  if (e.target.value.trim()) files.items.add(new File([e.target.value], 'pasted.csv', { type: 'text/csv' }));
  chosen.files = files.files;
  if (e.inputType === 'insertFromPaste' && chosen.matches('[data-sends]')) e.target.form.requestSubmit();
});
document.addEventListener('htmx:afterRequest', (e) => {
  if (!e.detail.successful || refused(e.detail.xhr)) return;
  if (e.detail.elt.matches('[data-empties-when-done]')) e.detail.elt.reset();
  if (e.detail.elt.matches('[data-closes-when-done]')) e.detail.elt.closest('dialog').close();
  const words = e.detail.xhr.getResponseHeader('Baton-Says');
  if (words) baton.say(decodeURIComponent(words));
  else if (e.detail.elt.dataset.says) baton.say(e.detail.elt.dataset.says);
  // A dialog that closes gives the focus back; what it has brought asks for it.
  e.detail.target.querySelector('[autofocus]:not(:disabled)')?.focus();
});
document.addEventListener('submit', (e) => {
  if (e.target.matches('[data-not-sent]')) e.preventDefault();
  const question = e.target.dataset.ask;
  if (question && !window.confirm(question)) e.preventDefault();
});
