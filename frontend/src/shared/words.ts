/** Instrument names as they are said. */
export const INSTRUMENTS: Record<string, string> = {
  none: "no instrument", flute: "flute", oboe: "oboe", clarinet: "clarinet", alto_sax: "alto saxophone", tenor_sax: "tenor saxophone", trumpet: "trumpet",
  cornet: "cornet", horn: "horn", trombone: "trombone", euphonium: "euphonium", baritone: "baritone", tuba: "tuba",
};

export const instrumentWords = (name: string) => INSTRUMENTS[name] ?? name;

export const PATTERNS: Record<string, string> = {
  pushed: "belly pushed out while the ribs sink", paradoxical: "belly goes in while breathing in", shallow: "small breath", chest_high: "high breath",
  low_then_lifted: "low, then mostly chest", low_then_wide: "low, then wide", low: "low", unclear: "not sure",
};

export const firstName = (name: string) => name.split(" ")[0] ?? name;

export const dayWords = (day: string) => new Date(`${day}T00:00:00`).toLocaleDateString("en-GB", { day: "numeric", month: "long" });
