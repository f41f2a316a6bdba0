// The phrases that may stand where somebody writes, offered at the field as a combobox: begun words choose, arrows and pointer too,
// and behind a phrase that takes an amount stands what it may be.
import Combobox from '../lib/combobox-nav/combobox-nav.js';

const MOST = 500;
let count = 0;

const known = { text: '', machines: [] };

/** The phrasebooks that the page has, read once for each drawing: a line a machine, then a line for each of its phrases. */
const machines = () => {
  const text = document.querySelector('#phrasebooks')?.textContent || '';
  if (text === known.text) return known.machines;
  Object.assign(known, { text, machines: [] });
  for (const line of text.split('\n')) {
    const [first, second, third] = line.slice(1).split('\t');
    if (line[0] === '>') known.machines.push({ device: first, dept: second, phrases: [] });
    else if (line)
      known.machines
        .at(-1)
        .phrases.push({ name: first, takes: second, like: third, device: known.machines.at(-1).device });
  }
  return known.machines;
};

/** The phrases of the machines that are meant: name, amount that is taken, an example of it, machine. */
export const phrasesOf = (isMeant) =>
  machines()
    .filter(isMeant)
    .flatMap((m) => m.phrases);

/** Those that fit, the ones that begin so first. */
export const fitting = (phrases, wanted) => {
  const begins = phrases.filter((p) => p.name.toLowerCase().startsWith(wanted));
  return begins.concat(phrases.filter((p) => !begins.includes(p) && p.name.toLowerCase().includes(wanted)));
};

/** The phrase whose amount is being written: its name stands there already, with a blank or an arrow behind it. */
export const begun = (phrases, text) =>
  phrases.find((p) => p.takes && text.trimStart().toLowerCase().startsWith(`${p.name.toLowerCase()} `));

export class PhraseBox {
  /**
   * @param {HTMLInputElement} input
   * @param {HTMLElement} place that the list is put into
   * @param {{ chosen?: (name: string) => void, taken: (phrase: object) => void }} ways what is done when one is chosen, and
   *   when one is pressed
   */
  constructor(input, place, { chosen = () => {}, taken }) {
    this.list = document.createElement('ul');
    this.list.className = 'choices';
    this.list.id = `phrases-${++count}`;
    this.list.setAttribute('role', 'listbox');
    this.list.setAttribute('aria-label', 'Phrases');
    this.place = place;
    this.nav = new Combobox(input, this.list, { firstOptionSelectionMode: 'none' });
    this.list.addEventListener('pointerdown', (e) => e.preventDefault());
    this.list.addEventListener('combobox-select', (e) => chosen(this.phraseOf(e.target).name));
    // Enter and Tab are the field's own: they come as clicks that nobody made.
    this.list.addEventListener('combobox-commit', (e) => {
      if (e.detail.event.isTrusted) taken(this.phraseOf(e.target));
    });
  }

  phraseOf(option) {
    return this.phrases[Number(option.dataset.at)];
  }

  /** @param {string} none said when there is nothing to offer */
  offer(phrases, wanted, none) {
    this.close();
    this.phrases = fitting(phrases, wanted).slice(0, MOST);
    this.list.replaceChildren(
      ...this.phrases.map(({ name, takes }, at) => {
        const option = Object.assign(document.createElement('li'), { textContent: name });
        option.setAttribute('role', 'option');
        option.dataset.at = at;
        option.id = `${this.list.id}-${at}`;
        if (takes) option.dataset.takes = takes;
        return option;
      }),
    );
    if (!this.phrases.length) this.say(none);
    this.open();
    if (wanted) this.nav.navigate(1);
  }

  /** What amount a phrase takes, where it would else offer phrases. */
  ask({ takes, like }) {
    this.close();
    this.phrases = [];
    this.say(`${takes}${like ? `; such as: ${like}` : ''}`);
    this.open();
  }

  say(words) {
    this.list.replaceChildren(Object.assign(document.createElement('li'), { className: 'none', textContent: words }));
    this.list.firstElementChild.setAttribute('role', 'presentation');
  }

  open() {
    this.place.append(this.list);
    this.nav.start();
  }

  close() {
    this.nav.stop();
    this.list.remove();
  }

  /** The phrase that is chosen in the list; undefined for none. */
  get picked() {
    const option = this.list.isConnected && this.list.querySelector('[aria-selected="true"]');
    return option ? this.phraseOf(option) : undefined;
  }

  get isOpen() {
    return this.list.isConnected && this.phrases.length > 0;
  }

  move(by) {
    this.nav.navigate(by);
  }
}
