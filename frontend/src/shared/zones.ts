/** The time zone of this computer. */
export const ownZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Every time zone by its name, and the one that is set, wherever this browser does not know it. */
export const zones = (set: string): string[] => [...new Set([...Intl.supportedValuesOf("timeZone"), "UTC", set])].toSorted();
