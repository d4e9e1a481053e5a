import { Link } from "react-router";

import { Part } from "./Part";

/** Where ways are set that are not the whole programme's. */
export function Elsewhere() {
  return (
    <Part aria-label="Set elsewhere">
      <p>set elsewhere</p>
      <span>
        <Link to="/cards">one card by another school</Link>, <Link to="/class">what is not measured for a student</Link>,{" "}
        <Link to="/bench">how each instrument is put together and held</Link>
      </span>
    </Part>
  );
}
