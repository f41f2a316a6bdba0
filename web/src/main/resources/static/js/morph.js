// Drawing anew by changing what is there: what has focus or is under the pointer stays the same element, what somebody types stays,
// and an Alpine component keeps its state unless the server says another. For htmx it is the swap "morph".
import { Idiomorph } from '../lib/idiomorph/idiomorph.esm.js';

const ours = {
  // Alpine hides and shows by style, the browser folds by open; the server knows of neither.
  beforeAttributeUpdated: (name, element) =>
    !(name === 'open' && element.matches('details, dialog')) && !(name === 'style' && element.matches('[x-show]')),
};

/** @param {'innerHTML' | 'outerHTML'} morphStyle innerHTML for what is within the element, outerHTML for the element itself */
export const morph = (element, content, morphStyle = 'innerHTML') => {
  const before = new Map(
    [...element.querySelectorAll('[x-data]')].map((component) => [component, component.getAttribute('x-data')]),
  );
  // Of a field that has focus nothing is touched; of a button or a row, all that is different.
  const ignoreActiveValue = document.activeElement.matches('input, textarea, select');
  const morphed = Idiomorph.morph(element, content, {
    morphStyle,
    ignoreActiveValue,
    restoreFocus: true,
    callbacks: ours,
  });
  before.forEach((data, component) => {
    if (!component.isConnected || component.getAttribute('x-data') === data) return;
    window.Alpine.destroyTree(component);
    window.Alpine.initTree(component);
  });
  htmx.process(element);
  return morphed;
};

htmx.defineExtension('morph', {
  isInlineSwap: (style) => style === 'morph',
  handleSwap: (style, target, content) => {
    if (style !== 'morph') return false;
    morph(target, [...content.childNodes]);
    return [target];
  },
});
