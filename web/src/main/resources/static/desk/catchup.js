// The sheet that shows what it takes to make the machines right, and the places of machines that only step.
import { baton } from '../js/baton.js';
import { does } from '../js/keys.js';
const sheet = document.getElementById('catch-up');
const path = (what) => `/shows/${baton.show}/desk/${what}`;

const TYPED = 'form input:not([type=hidden], [type=checkbox])';

/** The dialog is called what the sheet in it is called. */
const named = () => sheet.setAttribute('aria-label', sheet.querySelector('h2')?.textContent || 'Catch-up');

/** @param how of the request, where it is more than a look
 *  @param early what a field that takes the words already is called, where the sheet is one to type into */
async function show(what, early = '', how = {}) {
  // The sheet is there at once, so that an Enter in a hurry is not a GO, and what is typed into it is not lost.
  sheet.innerHTML = early
    ? `<p>${early}: <input class="blank" size="30" autocomplete="off" aria-label="${early}"></p>`
    : '<p class="working" role="status">Looking what it takes…</p>';
  if (!sheet.open) sheet.showModal();
  const first = sheet.querySelector('input');
  let hurry = false;
  first?.focus();
  first?.addEventListener('keydown', (e) => {
    hurry ||= e.key === 'Enter';
  });
  const response = await baton.ask(path(what), how);
  if (!response) {
    const words = sheet.querySelector('.notice-place');
    sheet.close();
    // Told in the sheet, it would be gone with it.
    if (words) document.getElementById('notice').replaceChildren(...words.childNodes);
    return;
  }
  if (response.status === 204) {
    // It was done at once.
    sheet.close();
    const words = response.headers.get('Baton-Says');
    if (words) baton.say(decodeURIComponent(words));
    return;
  }
  const drawn = await response.text();
  const typed = first?.value || '';
  sheet.innerHTML = drawn;
  named();
  htmx.process(sheet);
  const field = early && sheet.querySelector(TYPED);
  if (field) {
    field.value = typed;
    field.focus();
    if (hurry) field.form.requestSubmit();
  } else
    (
      sheet.querySelector('.tonight [name=number]') ||
      sheet.querySelector('[type=submit]') ||
      sheet.querySelector('input:not([type=hidden])') ||
      sheet.querySelector('button')
    )?.focus();
}

/** The music goes on: at once where nothing is to be made right, and with Shift in any case. */
const goOn = (place, e) =>
  show('go-on', '', { method: 'POST', body: new URLSearchParams({ to: place, atOnce: String(e.shiftKey === true) }) });

const to = (place) => show(`catch-up?to=${encodeURIComponent(place)}`);

if (sheet) {
  sheet.addEventListener('submit', (e) => {
    if (!e.target.matches('.from')) return;
    e.preventDefault();
    const place = e.target.querySelector('[name=place]').value.trim();
    to(place.match(/^b(?:ar)?\s*(\d+)$/i)?.[1] || place.replace(/^(?:cue|c)\s*/i, 'cue ').toLowerCase());
  });
  sheet.addEventListener('change', async (e) => {
    const { kind } = e.target.dataset;
    if (kind && !(await baton.post(path('tonight'), { kind, id: e.target.value, armed: e.target.checked })))
      e.target.checked = !e.target.checked;
  });
  sheet.addEventListener('click', (e) => {
    const from = e.target.closest('[data-from]');
    if (from) to(from.dataset.from);
  });
  const once = (act) => (e) => {
    if (!e.repeat) act(e);
    if (e.type === 'click') e.target.closest('button')?.blur();
  };
  const acts = {
    catch: () => show(`catch-up?to=${document.querySelector('.offer')?.dataset.to || 'standby'}`),
    tonight: () => show('tonight'),
    listen: () => baton.post(path('listen')),
    note: () => show('note', 'Note'),
    from: () => show('from', 'Bar, or cue'),
    toNext: () => show('catch-up?to=next'),
    write: () => baton.post(path('write-down')),
    end: () =>
      window.confirm('End this run? Its times are kept; the next GO begins another one.') &&
      baton.post(path('end-run')),
    seen: () => baton.post(path('seen')),
    take: () => baton.post(path('take-over')),
    places: () => show('places'),
    up: () => baton.post(path('bring-up')),
    on: (e) => goOn('here', e),
    section: (e) => goOn('section', e),
    now: (e) => goOn('now', e),
  };
  does(Object.fromEntries(Object.entries(acts).map(([action, act]) => [action, once(act)])));
  document.addEventListener('from-bar', (e) => show(`catch-up?to=${e.detail}`));
  document.addEventListener('click', (e) => {
    const up = e.target.closest('[data-bring-up]');
    if (up) baton.post(path('bring-up'), { device: up.dataset.bringUp });
  });
  document.addEventListener('submit', (e) => {
    if (!e.target.matches('[data-go-on-bar]')) return;
    e.preventDefault();
    goOn(new FormData(/** @type {HTMLFormElement} */ (e.target)).get('bar'), e);
  });
}
