import { useEffect, useState } from "react";

import { serverNow } from "../api/clock";

/** The server's clock in ms, each second anew. */
export function useNow(): number {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const tick = setInterval(() => setNow(serverNow()), 1000);
    return () => clearInterval(tick);
  }, []);
  return now;
}
