import { Button, Drawer, Input } from 'antd';
import { type ReactNode, useState } from 'react';
import { holdsWords } from '../frame/holds-words.ts';
import { type Example, type ExampleOf, EXAMPLES } from './notation-examples.ts';
import './notation-panel.css';

/** Whether an example holds every word that is sought, in what it shows or says. */
export function isFound({ text, says }: Pick<Example, 'text' | 'says'>, sought: string): boolean {
  return holdsWords(`${text} ${says}`, sought);
}

interface NotationPanelProps {
  readonly of: ExampleOf;
  readonly onClose: () => void;
  readonly onInsert: (text: string) => void;
}

/** The notation on one page, by example; a click puts an example into the text that it was opened from. */
export function NotationPanel({ of, onClose, onInsert }: NotationPanelProps): ReactNode {
  const [sought, setSought] = useState('');
  const found = EXAMPLES.filter((group) => group.of === of || group.of === 'both').flatMap((group) => {
    const examples = group.examples.filter((example) => isFound(example, sought));
    return examples.length === 0 ? [] : [{ ...group, examples }];
  });
  return (
    <Drawer
      title="Notation by example"
      open
      onClose={onClose}
      mask={false}
      size={430}
      extra={
        <Input
          type="search"
          size="small"
          aria-label="Search the notation"
          placeholder="search"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      }
    >
      {found.length === 0 && <p className="quiet">No example contains “{sought}”.</p>}
      {found.map(({ heading, examples }) => (
        <section key={heading} className="notation-group">
          <h3 className="label">{heading}</h3>
          <ul>
            {examples.map(({ text, says }) => (
              <li key={text}>
                <Button
                  type="text"
                  size="small"
                  className="example-button"
                  title="Insert into the text"
                  onClick={() => onInsert(text)}
                >
                  <code>{text}</code>
                </Button>
                <span>{says}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </Drawer>
  );
}
