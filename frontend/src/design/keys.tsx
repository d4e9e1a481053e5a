import { createContext, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { Dialog, Heading } from "react-aria-components";
import styled from "styled-components";

import { Action, KeyCap } from "./Action";
import { Shade, Sheet } from "./Sheet";
import { colour } from "./tokens";

export type Binding = { key: string; shown?: string; does: string; run: () => void; off?: boolean };

type Listed = [string, Binding[]][];
type Store = { add: (group: string, bindings: () => Binding[]) => () => void };
const Keys = createContext<Store | null>(null);

const KeysSheet = styled(Sheet)`
  min-width: min(420px, 92vw);
  max-width: 96vw;
  max-height: 92vh;
  overflow: auto;
`;
const List = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 18px;
  margin: 6px 0 12px;
  align-items: baseline;
`;
const Group = styled.h3`
  font-size: 14px;
  color: ${colour("soft")};
  margin-top: 14px;
`;

/** Keys that a focused button answers itself; one whose data say so leaves the space bar to the page. */
const ANSWERED = new Set([" ", "Enter"]);
const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) || target.getAttribute("role") === "application");

/** An arrow key on a handle moves that handle. */
const slides = ({ target, key }: KeyboardEvent) =>
  target instanceof Element && target.getAttribute("role") === "slider" && key.startsWith("Arrow");

/** Listens for keys once for the whole page and lists them on "?". */
export function KeyBoard({ children }: { children: ReactNode }) {
  const groups = useRef(new Map<string, () => Binding[]>());
  const [shown, setShown] = useState<Listed | null>(null);
  const store = useMemo<Store>(
    () => ({
      add: (group, bindings) => {
        groups.current.set(group, bindings);
        return () => groups.current.delete(group);
      },
    }),
    [],
  );
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key === "Escape" && event.target instanceof HTMLSelectElement) return event.target.blur(); // the next key is the page's
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        typing(event.target) ||
        slides(event) ||
        document.querySelector("[role=dialog],[role=alertdialog]")
      )
        return;
      if (event.key === "?") return setShown([...groups.current].map(([name, bindings]) => [name, bindings()]));
      if (event.target instanceof HTMLButtonElement && ANSWERED.has(event.key) && !(event.key === " " && event.target.dataset.spaceFree))
        return;
      for (const bindings of groups.current.values())
        for (const one of bindings())
          if (one.key.toLowerCase() === event.key.toLowerCase() && !one.off) {
            event.preventDefault();
            event.stopPropagation();
            return one.run();
          }
    };
    const chosen = ({ target }: Event) => {
      if (target instanceof HTMLSelectElement && !target.matches(":focus-visible")) target.blur(); // by hand: space starts, and opens no list again
    };
    window.addEventListener("keydown", press, true); // before the focused button hears it
    window.addEventListener("change", chosen);
    return () => {
      window.removeEventListener("keydown", press, true);
      window.removeEventListener("change", chosen);
    };
  }, []);
  return (
    <Keys.Provider value={store}>
      {children}
      <Shade isOpen={shown !== null} onOpenChange={(open) => !open && setShown(null)} isDismissable>
        <KeysSheet>
          <Dialog>
            <Heading slot="title">Keys</Heading>
            <KeyList groups={shown ?? []} />
            <Action main autoFocus onPress={() => setShown(null)}>
              Close
            </Action>
          </Dialog>
        </KeysSheet>
      </Shade>
    </Keys.Provider>
  );
}

function KeyList({ groups }: { groups: Listed }) {
  return groups.map(([name, bindings]) => <KeyGroup key={name} name={name} bindings={bindings} />);
}

function KeyGroup({ name, bindings }: { name: string; bindings: Binding[] }) {
  return (
    <>
      <Group>{name}</Group>
      <List aria-label={name}>
        {bindings.map((one) => (
          <KeyLine key={one.key} one={one} />
        ))}
      </List>
    </>
  );
}

function KeyLine({ one }: { one: Binding }) {
  return (
    <>
      <dt>
        <KeyCap>{one.shown ?? one.key.toUpperCase()}</KeyCap>
      </dt>
      <dd>{one.does}</dd>
    </>
  );
}

/** Keys of a screen, as long as it is shown. */
export function useKeys(group: string, bindings: Binding[]) {
  const store = useContext(Keys);
  const latest = useRef(bindings);
  useLayoutEffect(() => {
    latest.current = bindings; // as soon as a button can be seen its key does what the button does
  });
  useLayoutEffect(() => store?.add(group, () => latest.current), [store, group]);
}
