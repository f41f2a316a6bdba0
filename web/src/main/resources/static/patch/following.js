// A line of the drawing can be followed: where its row is focused or either of them is pointed at, the others fade.
export function following(place) {
  let pointed = null;

  const mark = (number) => {
    place.querySelectorAll('[data-line]').forEach((e) => e.classList.toggle('followed', e.dataset.line === number));
    place.querySelector('.drawing')?.classList.toggle('follows', Boolean(number));
  };
  const focused = () => document.activeElement?.closest?.('#lines [data-line]')?.dataset.line;
  const follow = () => mark(pointed || focused());

  place.addEventListener('pointerover', (e) => {
    pointed = e.target.closest('[data-line]')?.dataset.line;
    follow();
  });
  place.addEventListener('pointerleave', () => {
    pointed = null;
    follow();
  });
  place.addEventListener('focusin', follow);
  place.addEventListener('focusout', () => setTimeout(follow));
  return { follow };
}
