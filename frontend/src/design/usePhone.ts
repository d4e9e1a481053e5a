import { useSyncExternalStore } from "react";

import { PHONE } from "./sizes";

const phone = matchMedia(PHONE);

function onChange(told: () => void) {
  phone.addEventListener("change", told);
  return () => phone.removeEventListener("change", told);
}

/** Whether the screen is a phone's, or as narrow, for what a style alone cannot leave out. */
export const usePhone = () => useSyncExternalStore(onChange, () => phone.matches);
