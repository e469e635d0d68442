import { fireEvent, screen } from '@testing-library/react';

// What browsers have and jsdom has not; lists of choices use it to lay themselves out.
Element.prototype.scrollIntoView ??= () => undefined;
Element.prototype.hasPointerCapture ??= () => false;
globalThis.ResizeObserver ??= class {
  observe() {
    // Nothing has a size here.
  }
  unobserve() {
    // Nothing has a size here.
  }
  disconnect() {
    // Nothing has a size here.
  }
};

/** Chooses one of several as a person does: opens the list and takes the entry. */
export function choose(label: string, option: string) {
  fireEvent.keyDown(screen.getByLabelText(label), { key: 'Enter' });
  fireEvent.keyDown(screen.getByRole('option', { name: option }), { key: 'Enter' });
}
