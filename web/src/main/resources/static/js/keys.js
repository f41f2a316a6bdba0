// How a pressed key is called in the pages' tables of keys.

/** Enter, n, Ctrl Shift c, Alt ArrowUp: a letter small, with Ctrl for Cmd too. */
export const named = (e) => {
  const letter = e.key.length === 1;
  const ctrl = e.ctrlKey || e.metaKey;
  // A letter alone says by itself whether Shift was held.
  return [ctrl && 'Ctrl', e.altKey && 'Alt', e.shiftKey && (!letter || ctrl) && 'Shift', letter && (ctrl || e.altKey) ? e.key.toLowerCase() : e.key].filter(Boolean).join(' ');
};
