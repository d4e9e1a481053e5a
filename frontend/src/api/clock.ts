let ahead_ms = 0;

/** What the server's clock said just now; phones and laptops in a room seldom agree. */
export const hearClock = (moment: string) => {
  ahead_ms = Date.parse(moment) - Date.now();
};

/** The server's clock in ms, as far as it was heard. */
export const serverNow = () => Date.now() + ahead_ms;
