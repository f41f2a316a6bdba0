// For the checker of our scripts alone.
export default class Combobox {
  constructor(input: HTMLElement, list: HTMLElement, settings?: Record<string, unknown>);
  start(): void;
  stop(): void;
  destroy(): void;
  navigate(steps: number): void;
  clearSelection(): void;
}
