// The one button of a sheet for paper.
document.addEventListener('click', (e) => {
  if (e.target.closest('[data-print]')) window.print();
});
