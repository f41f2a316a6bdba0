// Every key of every page, once: the pages act by it, and their key sheets, the keys printed beside words and the tooltips are
// made of it. A key is named as keys.js names it. What is fixed follows from what a thing is (arrows, the clipboard) and is only
// told; what is for always is meant also where a button has focus.
const may = (words, ...keys) => ({ words, keys });
const fixed = (words, ...keys) => ({ words, keys, fixed: true });

// The orders of the Desk come from the server's one table of orders, with their keys.
const deeds = () => {
  const all = JSON.parse(document.getElementById('key-sheet')?.dataset.deeds ?? '[]');
  return Object.fromEntries(
    all.map((d) => [
      d.word,
      { ...may(d.words[0].toUpperCase() + d.words.slice(1), ...d.keys), always: d.word === 'go', deed: true },
    ]),
  );
};

export const EVERYWHERE = {
  undo: may('Undo', 'Ctrl z'),
  redo: may('Do again what was undone', 'Ctrl Shift z', 'Ctrl y'),
  keys: may('The keys of this page', 'F1'),
};

export const KEYS = {
  shows: {
    newShow: may('A new show', 'n'),
  },

  rig: {
    machine: may('Add a machine', 'm'),
    phrase: may('A new phrase', 'n'),
    list: may('Paste the machine’s own list', 'l'),
    family: may('Fill the phrasebook from a family', 'y'),
    learn: may('Learn phrases from what comes in', 'r'),
    down: fixed('The next phrase', 'ArrowDown'),
    up: fixed('The phrase before', 'ArrowUp'),
    first: fixed('The first phrase', 'Home'),
    last: fixed('The last phrase', 'End'),
    change: may('Change the phrase', 'Enter', 'F2'),
    fire: may('Fire the phrase; first to its amount where it takes one', 'f'),
    choose: may('Choose it, to change several at once', ' '),
    duplicate: may('Duplicate the phrase', 'Ctrl d'),
    remove: may('Delete the phrase', 'Delete'),
  },

  book: {
    move: fixed('From cell to cell', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'),
    stretch: fixed('Choose several cells; from a cue’s number, whole cues', 'Shift ArrowDown', 'Shift ArrowRight'),
    edit: may('Write into the cell, or just type; + parts two phrases', 'Enter', 'F2'),
    leave: fixed('Leave the cell as it was', 'Escape'),
    clear: may('Clear the cell', 'Delete', 'Backspace'),
    find: may('Find a cue by its number or its words', '/'),
    fire: may('Fire what the cell says', 'Shift Enter'),
    addCue: may('A new cue below', 'Insert'),
    newItem: may('A new item of the running order', 'Alt n'),
    duplicate: may('Duplicate the cue', 'Ctrl d'),
    earlier: may('The cue one place earlier', 'Alt ArrowUp'),
    later: may('The cue one place later', 'Alt ArrowDown'),
    fillDown: may('Fill down: the words of the top cell go into those below it', 'Ctrl ArrowDown'),
    copy: fixed('Copy cells or whole cues, also for another show or a spreadsheet', 'Ctrl c'),
    cut: fixed('Cut them', 'Ctrl x'),
    paste: fixed('Paste them', 'Ctrl v'),
    remarks: may('A mark and a note', 'Ctrl m'),
    tonight: may('Take the chosen cues out for tonight, or put them back', 'Alt o'),
    remove: may('Delete the cue, or all that are chosen', 'Ctrl Delete'),
    paper: may('Sheets for paper', 'Ctrl p'),
  },

  score: {
    left: fixed('A beat back; chosen cues go along', 'ArrowLeft'),
    right: fixed('A beat on', 'ArrowRight'),
    barLeft: fixed('A bar back', 'Shift ArrowLeft'),
    barRight: fixed('A bar on', 'Shift ArrowRight'),
    up: fixed('The department above', 'ArrowUp'),
    down: fixed('The department below', 'ArrowDown'),
    first: fixed('The first beat', 'Home'),
    last: fixed('The last beat', 'End'),
    write: may('Write a cue at the mark, or change the one there', 'Enter'),
    choose: may('Choose the cue at the mark; again to let it go', ' '),
    none: fixed('Choose none; while it plays, back to the sheet', 'Escape'),
    all: may('Choose all', 'Ctrl a'),
    remove: may(
      'Delete what is chosen; in a section that is another again, leave the cue out there or let it in',
      'Delete',
    ),
    copy: may('Copy', 'Ctrl c'),
    cut: may('Cut', 'Ctrl x'),
    paste: may('Paste at the mark', 'Ctrl v'),
    duplicate: may('Duplicate a bar later', 'Ctrl d'),
    section: may('Write a section at the bar of the mark', 'l'),
    snippets: may('Snippets: blocks of cues to be used again', 'b'),
    words: may('The score in words', 't'),
    play: may('Play from the mark', 'p'),
    pause: may('Pause, and go on', 'o'),
    release: may('Leave the vamp', 'v'),
    sooner: may('While it plays: 20 ms earlier', ','),
    later: may('While it plays: 20 ms later', '.'),
    closer: may('Fewer bars a line', '+', '='),
    farther: may('More bars a line', '-'),
  },

  signals: {
    listener: may('A new listener', 'n'),
    relay: may('A new relay', 'r'),
    trial: may('To the trial', 't'),
    change: may('Change the listener', 'Enter'),
    remove: may('Delete the listener', 'Delete'),
    happen: fixed('In the trial: let it happen', 'Ctrl Enter'),
  },

  patch: {
    newSet: may('A new set', 'n'),
    load: may('Load the set that is looked at; twice', 'l'),
    keep: may('Keep the edits', 'k'),
    keepAs: may('Keep them as another set', 'Shift k'),
    putBack: may('Put back as it was kept', 'p'),
    rename: may('Rename the set', 'r'),
    duplicate: may('Duplicate the set', 'd'),
    addLine: may('Add a line', 'a'),
    changeLine: may('Change the line', 'Enter'),
    deleteLine: may('Delete the line', 'Delete'),
    copy: fixed('Copy the line', 'Ctrl c'),
    paste: fixed('Paste it', 'Ctrl v'),
    hush: may('All notes off, at every output', 'o'),
    up: fixed('The one above', 'ArrowUp'),
    down: fixed('The one below', 'ArrowDown'),
  },

  hands: {
    digits: fixed('Press the key of this number', '0…9'),
    press: fixed('Press the key that has focus', 'Enter', ' '),
    forget: fixed('Forget a row that was begun', 'Escape'),
  },

  edit: {
    newPage: may('A new page of keys', 'n'),
    grid: may('Name and grid of the page', 'g'),
    copyPage: may('Copy the page', 'Ctrl Shift c'),
    up: fixed('The place above', 'ArrowUp'),
    down: fixed('The place below', 'ArrowDown'),
    left: fixed('The place at the left', 'ArrowLeft'),
    right: fixed('The place at the right', 'ArrowRight'),
    write: fixed('Write the key', 'Enter'),
    remove: may('Take the key away', 'Delete'),
    copy: may('Copy the key, here or for another show', 'Ctrl c'),
    cut: may('Cut it', 'Ctrl x'),
    paste: may('Paste it', 'Ctrl v'),
    moveUp: may('Move it up, or let two change places', 'Alt ArrowUp'),
    moveDown: may('Move it down', 'Alt ArrowDown'),
    moveLeft: may('Move it to the left', 'Alt ArrowLeft'),
    moveRight: may('Move it to the right', 'Alt ArrowRight'),
  },

  linecheck: {
    send: may('Send, and hear whether it arrives', 'Enter'),
    moved: may('It moved', 'y'),
    still: may('It did not move', 'n'),
    down: fixed('The next machine', 'ArrowDown'),
    up: fixed('The machine before', 'ArrowUp'),
  },

  desk: {
    ...deeds(),
    jump: may('Jump to a cue', '/'),
    catch: may('Catch-up: make the machines right', 'c'),
    places: may('Places of machines that only step', 'l'),
    up: may('Bring up machines that were away', 'u'),
    on: may('Go on where it stopped; with Shift at once, whatever is to be made right', 'g'),
    section: may('Go on from the section’s start', 'v'),
    now: may('Go on where the band is now, after an interruption', 'n'),
    tonight: may('Who takes part tonight', 'a'),
    take: may('Take over the edits that wait', 'e'),
    note: may('A note at this moment', 'm'),
    write: may('Write down where each GO comes', 'w'),
    from: may('Play from a section, a bar or a cue', 'f'),
    toNext: may('Cue to cue: to just before the next cue', 'j'),
    listen: may('Listeners off, or on again', 'd'),
    seen: may('Say that you have seen what could not be done', 'x'),
  },

  log: {
    pause: may('Pause, or go on', 'p'),
  },
};
