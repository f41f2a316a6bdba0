// What our scripts take for granted, for the checker alone: selectors find elements of HTML, events come from such, and these
// libraries are there. A form's own fields are known by their names only where it is said to be a form.
interface EventTarget {
  closest<E extends HTMLElement = HTMLElement>(selectors: string): E | null;
  matches(selectors: string): boolean;
  querySelector<E extends HTMLElement = HTMLElement>(selectors: string): E | null;
  dataset: DOMStringMap;
  classList: DOMTokenList;
  form: HTMLFormElement;
  value: any;
  checked: boolean;
  id: string;
  name: string;
  open: any;
  blur(): void;
  select(): void;
  replaceChildren(...nodes: (Node | string)[]): void;
}
interface Element {
  style: CSSStyleDeclaration;
  hidden: boolean;
  disabled: boolean;
  href: string;
  tabIndex: number;
  tBodies: HTMLCollectionOf<HTMLTableSectionElement>;
  cells: HTMLCollectionOf<HTMLTableCellElement>;
  focus(options?: FocusOptions): void;
  click(): void;
  close(): void;
  showModal(): void;
}
interface Event {
  detail: any;
  button: number;
  pointerId: number;
  inputType: string;
  clipboardData: DataTransfer;
}
declare const htmx: any;
declare const bootstrap: any;
declare let onconnect: (e: MessageEvent) => void;
interface Window {
  Alpine: any;
  twice: any;
}
