// The field in which a cue is written at the mark, with the phrases of its department.
import { begun, PhraseBox, phrasesOf } from '../js/phrases.js';
import { beatAt, change, depts, music, paper } from './sheet.js';
import { mark } from './mark.js';

const DEPARTMENTS = { lx: 'LIGHTS', vd: 'VIDEO', tx: 'WORDS', cm: 'CAMERAS', sd: 'SOUND', ky: 'KEYS' };
let writer = null;

export const writing = () => writer !== null;

export const close = () => {
  writer?.remove();
  writer = null;
};
const leave = () => {
  close();
  paper.focus({ preventScroll: true });
};

const room = () => {
  const beat = beatAt(mark.tick);
  const box = music().getBoundingClientRect();
  const about = paper.getBoundingClientRect();
  return {
    left: `${Math.min(beat.x + box.left - about.left + paper.scrollLeft, about.width - 280)}px`,
    top: `${beat.line.staves[mark.staff] + box.top - about.top + paper.scrollTop + 12}px`,
  };
};

/** What a note's cue says to its machine. */
const said = (note) => note?.dataset.cell || note?.dataset.told || '';

/** @param {Element} [note] the one that is changed; none for a new cue */
export const write = (note) => {
  if (!beatAt(mark.tick) || writer) return;
  const dept = depts()[mark.staff];
  writer = Object.assign(document.createElement('div'), { className: 'writer editing' });
  Object.assign(writer.style, room());
  const input = Object.assign(document.createElement('input'), {
    name: 'text',
    autocomplete: 'off',
    value: said(note),
  });
  input.setAttribute('aria-label', 'What this department gets');
  writer.append(input);
  paper.append(writer);

  const phrases = phrasesOf((m) => m.dept === dept && (!note || m.device === note.dataset.device));
  const box = new PhraseBox(input, writer, {
    taken: (phrase) => {
      if (!pick(phrase)) keep();
    },
  });
  const offer = () => {
    const wanted = input.value.trim().toLowerCase();
    const whole = phrases.find((p) => p.name.toLowerCase() === wanted);
    const named = begun(phrases, input.value);
    if (named) box.ask(named);
    else box.offer(phrases, whole ? '' : wanted, 'no such phrase');
  };
  /** Answers whether its amount is to come. */
  const pick = (phrase) => {
    input.value = phrase.name + (phrase.takes ? ' ' : '');
    if (phrase.takes) box.ask(phrase);
    else box.close();
    return Boolean(phrase.takes);
  };
  const keep = async () => {
    const text = input.value.trim();
    const rest = note
      ? ['write', { cue: note.dataset.cue, device: note.dataset.device, text, was: said(note) }]
      : ['place', { tick: mark.tick, department: DEPARTMENTS[dept], text }];
    if ((!note && !text) || (await change(...rest))) leave();
  };
  input.addEventListener('input', offer);
  input.addEventListener('keydown', (e) => {
    e.stopPropagation();
    const { picked } = box;
    if (e.key === 'Escape') leave();
    else if (e.key === 'Enter') {
      e.preventDefault();
      if (!picked || !pick(picked)) keep();
    } else if (e.key === 'Tab' && picked) {
      e.preventDefault();
      pick(picked);
    }
  });
  input.addEventListener('blur', () =>
    setTimeout(() => {
      if (writer && !writer.contains(document.activeElement) && !document.querySelector('#notice .notice')) leave();
    }, 100),
  );
  offer();
  input.focus();
  input.select();
};
