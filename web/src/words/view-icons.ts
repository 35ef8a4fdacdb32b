import {
  mdiAccountMultipleOutline,
  mdiClockOutline,
  mdiEyeOutline,
  mdiHandCoinOutline,
  mdiHomeOutline,
  mdiLeaf,
  mdiLightbulbOutline,
  mdiPackageVariantClosed,
  mdiPencilOutline,
  mdiPhoneOutline,
} from "@mdi/js";
import type { OwnView } from "@/server/client";

/** The pictures that a view of one's own may have. */
export const viewIcons: Record<OwnView["icon"], string> = {
  eye: mdiEyeOutline,
  telephone: mdiPhoneOutline,
  people: mdiAccountMultipleOutline,
  clock: mdiClockOutline,
  leaf: mdiLeaf,
  coin: mdiHandCoinOutline,
  pen: mdiPencilOutline,
  house: mdiHomeOutline,
  lamp: mdiLightbulbOutline,
  box: mdiPackageVariantClosed,
};
