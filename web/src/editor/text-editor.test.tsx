/** @jest-environment jsdom */
import { EditorView } from '@codemirror/view';
import { fireEvent, render, screen } from '@testing-library/react';
import { repairLabel } from './diagnostics.ts';
import { TextEditor } from './text-editor.tsx';

const ERRORS = [
  { line: 2, column: 5, length: 3, message: 'decimals take a point' },
  { line: 9, column: 1, length: 1, message: 'beyond the end' },
];

function editorOf(container: HTMLElement): EditorView {
  const view = EditorView.findFromDOM(container);
  if (view === null) throw new Error('no editor');
  return view;
}

beforeAll(() => {
  // the layout that this document has none of
  Range.prototype.getClientRects = () => Object.assign([], { item: () => null });
});

test('what is typed is reported, and a text from elsewhere is shown', () => {
  const onChange = jest.fn();
  const page = render(
    <TextEditor of="method" label="the problem" value="a = 1" errors={[]} hints={[]} onChange={onChange} />,
  );
  const view = editorOf(page.container);
  view.dispatch({ changes: { from: 5, insert: '2' } });
  expect(onChange).toHaveBeenCalledWith('a = 12');
  page.rerender(
    <TextEditor of="method" label="the problem" value="b = 3" errors={[]} hints={[]} onChange={onChange} />,
  );
  expect(view.state.doc.toString()).toBe('b = 3');
  expect(screen.getByRole('textbox', { name: 'the problem' })).toBeTruthy();
});

test('errors are listed with their places; a click puts the cursor there', () => {
  const page = render(
    <TextEditor
      of="method"
      label="the problem"
      value={'a = 1\nk = 0,8'}
      errors={ERRORS}
      hints={[]}
      onChange={() => undefined}
    />,
  );
  const list = screen.getByRole('list', { name: 'Errors in the problem' });
  expect(list.textContent).toContain('2:5 decimals take a point');
  fireEvent.click(screen.getByRole('button', { name: /decimals take a point/ }));
  expect(editorOf(page.container).state.selection.main.anchor).toBe(10);
  // a place beyond the text is its last line
  fireEvent.click(screen.getByRole('button', { name: /beyond the end/ }));
  expect(editorOf(page.container).state.selection.main.anchor).toBe(6);
});

test.each([
  ['takes the focus from a button', 'button', true],
  ['leaves it to a field that a person types into', 'input', false],
])('an editor that comes late %s', (_, element, isTaken) => {
  const field = document.body.appendChild(document.createElement(element));
  field.focus();
  const { container } = render(
    <TextEditor
      of="method"
      label="the method"
      value="k = 1"
      errors={[]}
      hints={[]}
      onChange={() => undefined}
      autoFocus
    />,
  );
  expect(document.activeElement === field).toBe(!isTaken);
  expect(editorOf(container).hasFocus).toBe(isTaken);
  field.remove();
});

test('Escape ends the editing where that is asked for', () => {
  const onDone = jest.fn();
  render(
    <TextEditor
      of="method"
      label="the method"
      value=""
      errors={[]}
      hints={[]}
      onChange={() => undefined}
      onDone={onDone}
    />,
  );
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'the method' }), { key: 'Escape' });
  expect(onDone).toHaveBeenCalledTimes(1);
});

test('the name of the editor may change while it stands', () => {
  const page = render(
    <TextEditor of="method" label="the first" value="" errors={[]} hints={[]} onChange={() => undefined} />,
  );
  page.rerender(
    <TextEditor of="method" label="the second" value="" errors={[]} hints={[]} onChange={() => undefined} />,
  );
  expect(screen.getByRole('textbox', { name: 'the second' })).toBeTruthy();
});

test.each([
  [{ from: 2, to: 4, text: 'h*k1' }, 'Replace with h*k1'],
  [{ from: 2, to: 2, text: 'solve ' }, 'Insert solve'],
  [{ from: 2, to: 9, text: '' }, 'Remove'],
  [{ from: 2, to: 9, text: `y = ${'a'.repeat(60)}` }, `Replace with y = ${'a'.repeat(40)} …`],
])('a repair %o has the button "%s"', (repair, label) => {
  expect(repairLabel(repair)).toBe(label);
});

test('the button of a repair writes it, and what was written is reported', () => {
  const onChange = jest.fn();
  const repairs = [
    { from: 0, to: 5, text: 'y[n+1]' },
    { from: 0, to: 5, text: 'y[n] + 1' },
  ];
  const errors = [{ line: 1, column: 1, length: 5, message: 'two readings', repairs }];
  render(
    <TextEditor
      of="method"
      label="the method"
      value="y_n+1 = y"
      errors={errors}
      hints={[]}
      onChange={onChange}
    />,
  );
  expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual([
    'Notation',
    '1:1 two readings',
    'Replace with y[n+1]',
    'Replace with y[n] + 1',
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'Replace with y[n+1]' }));
  expect(onChange).toHaveBeenCalledWith('y[n+1] = y');
});
