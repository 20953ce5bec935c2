import { waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { controlOf, reach } from './reach';

const HERE = '/jobs/j/a/survey?view=plane';
const show = (at: string, inside: string) => {
  document.body.innerHTML = `<main id="work" data-at="${at}">${inside}</main>`;
};

// What a page has and this one lacks.
Element.prototype.scrollIntoView = () => undefined;

beforeEach(() => show('/jobs/j/a/brief', '<input aria-label="Spacing" />'));
afterEach(() => document.body.replaceChildren());

test('the screen before is left alone, a part behind another is opened, the field has the focus', async () => {
  reach(HERE, ['Structure', 'Spacing']);
  expect(document.activeElement).toBe(document.body);
  show(HERE, '<button role="tab" aria-selected="false">Structure 2</button>');
  document.querySelector('button')?.addEventListener('click', () => {
    document
      .getElementById('work')
      ?.insertAdjacentHTML('beforeend', '<label>Spacing <input /></label>');
  });
  await waitFor(() => expect(document.activeElement?.tagName).toBe('INPUT'));
});

test('a touch of the person’s own ends the way', async () => {
  reach(HERE, ['Spacing']);
  window.dispatchEvent(new Event('pointerdown'));
  show(HERE, '<input aria-label="Spacing" />');
  await new Promise((done) => setTimeout(done));
  expect(document.activeElement).toBe(document.body);
});

test('a whole name goes before one that only begins so', () => {
  show(HERE, '<button>Module 12</button><button>Module 1</button>');
  expect(controlOf(document, 'Module 1')?.textContent).toBe('Module 1');
  expect(controlOf(document, 'Mod')?.textContent).toBe('Module 12');
});
