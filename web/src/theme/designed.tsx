import { type ComponentType, createContext, lazy, useContext } from 'react';

/** Fetches a component of parts of the library, and the look of these. */
export async function fetchDesigned<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
): Promise<ComponentType<Props>> {
  const [Part, { DesignFrame }] = await Promise.all([load(), import('./design-frame.tsx')]);
  // properties go around the frame: it is one element, which is not rendered with every change of them
  const Given = createContext<Props | null>(null);
  function Framed() {
    const props = useContext(Given);
    return props && <Part {...props} />;
  }
  const frame = (
    <DesignFrame>
      <Framed />
    </DesignFrame>
  );
  return function DesignedPart(props: Props) {
    return <Given value={props}>{frame}</Given>;
  };
}

/**
 * A part of a page with components of the library, in their look. Neither it nor the library is there before it is first
 * shown: what surrounds it, numbers above all, does not wait for them.
 */
export function designed<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
  return lazy(async () => {
    try {
      return { default: await fetchDesigned(load) };
    } catch {
      throw new Error('it could not be fetched from the server; reload the page');
    }
  });
}
