/** @jest-environment jsdom */
import { render } from '@testing-library/react';
import { ConfigProvider } from 'antd';
import { memo, useContext } from 'react';
import { DesignFrame } from './design-frame.tsx';
import { PaletteFrame } from './palette-frame.tsx';

test('a frame that is rendered again leaves the components in it as they are', () => {
  let renders = 0;
  const Part = memo(function Part() {
    useContext(ConfigProvider.ConfigContext);
    renders += 1;
    return null;
  });
  const page = (title: string): React.JSX.Element => (
    <PaletteFrame>
      <DesignFrame>
        <Part />
        {title}
      </DesignFrame>
    </PaletteFrame>
  );
  const { rerender, container } = render(page('before'));
  const first = renders;
  rerender(page('after'));
  expect(container.textContent).toBe('after');
  expect(renders).toBe(first);
});
