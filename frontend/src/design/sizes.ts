/** Where a screen is a phone's, or zoomed until it is as narrow. */
export const PHONE = "(max-width: 700px)";
