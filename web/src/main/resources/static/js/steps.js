// Undo and redo, the same on every page: their keys, their buttons, and the words of what they would take back. A page that draws
// itself takes the event `step`; any other is drawn anew as the server has it now, and says what was done.
import { baton } from './baton.js';
import { morph } from './morph.js';
import { does } from './keys.js';

const SAID = 'baton-said';
const who = /(?:^|; )baton-who=([0-9a-f]{16})/.exec(document.cookie)?.[1] || '';
let seen = null;

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
  const response = await baton.ask(window.location.href);
  if (!response) return;
  const main = new DOMParser().parseFromString(await response.text(), 'text/html').querySelector('main');
  morph(document.querySelector('main'), main, 'outerHTML');
  baton.say(words);
}

// A key asks although the button is off: a page that was left lying may not know yet what there is to undo.
does({
  undo: () => {
    step('undo');
  },
  redo: () => {
    step('redo');
  },
});

document.addEventListener('live', ({ detail }) => {
  if (detail.topic !== 'steps') return;
  const { of, told } = JSON.parse(detail.data);
  // What somebody else took back is said here too, once.
  if (seen !== null && told.revision > seen && told.who !== who) baton.say(`On another screen: ${told.words}.`);
  seen = told.revision;
  document.querySelectorAll('[data-step]').forEach((button) => {
    const what = of[button.dataset.step][who] || of[button.dataset.step][''];
    button.disabled = !what;
    button.dataset.tip = what ? `${button.dataset.step === 'undo' ? 'Undo' : 'Do again'}: ${what}` : '';
    button.querySelector('.of').textContent = what ? `: ${what}` : '';
  });
});

const said = sessionStorage.getItem(SAID);
if (said) {
  sessionStorage.removeItem(SAID);
  baton.say(said);
}
