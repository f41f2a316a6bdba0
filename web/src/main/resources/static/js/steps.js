// Undo and redo, the same on every page: their keys, their buttons, and the words of what they would take back. A page that draws
// itself takes the event `step`; any other is drawn anew as the server has it now, and says what was done.
import { baton } from './baton.js';
import { Idiomorph } from '../lib/idiomorph/idiomorph.esm.js';
import { tinykeys } from '../lib/tinykeys/tinykeys.js';

const SAID = 'baton-said';

async function step(name) {
  const event = new CustomEvent('step', { detail: { step: name }, cancelable: true });
  if (!document.dispatchEvent(event)) return;
  const answer = await baton.post(`/shows/${baton.show}/steps/${name}`);
  if (!answer) return;
  const words = await answer.text();
  if (document.getElementById('paper')) {
    // A score that was not there before needs its script from the beginning.
    sessionStorage.setItem(SAID, words);
    window.location.reload();
    return;
  }
  const response = await fetch(window.location.href).catch(() => null);
  if (!response?.ok) { baton.tell(null); return; }
  const main = new DOMParser().parseFromString(await response.text(), 'text/html').querySelector('main');
  Idiomorph.morph(document.querySelector('main'), main, { morphStyle: 'outerHTML', ignoreActiveValue: true });
  htmx.process(document.querySelector('main'));
  baton.say(words);
}

const unlessTyping = (act) => (e) => {
  if (e.defaultPrevented || baton.typing(e)) return;
  e.preventDefault();
  act();
};
tinykeys(window, {
  '$mod+z': unlessTyping(() => step('undo')),
  '$mod+Shift+z': unlessTyping(() => step('redo')),
  '$mod+y': unlessTyping(() => step('redo')),
});

document.addEventListener('click', (e) => {
  const button = e.target.closest('[data-step]');
  if (button) step(button.dataset.step);
});

document.addEventListener('live', ({ detail }) => {
  if (detail.topic !== 'steps') return;
  const words = JSON.parse(detail.data);
  document.querySelectorAll('[data-step]').forEach((button) => {
    const what = words[button.dataset.step];
    button.disabled = !what;
    button.title = what;
    button.querySelector('.of').textContent = what ? `: ${what}` : '';
  });
});

const said = sessionStorage.getItem(SAID);
if (said) {
  sessionStorage.removeItem(SAID);
  baton.say(said);
}
