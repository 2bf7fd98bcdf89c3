/** A place in words: what it has, and what that means for the choice of parts. Pure. */
import type { KnownPlace } from "../api/types";
import { bare, figure } from "./numbers";

type Place = KnownPlace["place"];

const FED_BY: Record<NonNullable<Place["power"]>, string> = {
  mains: "",
  network: "fed by the network lead",
  vehicle: "fed by a vehicle",
  battery: "fed by a battery",
  sun: "fed by the sun",
};

const NETWORK: Record<NonNullable<Place["network"]>, string> = {
  both: "",
  wired: "network by wire only",
  radio: "network by radio only",
  none: "no network",
};

/** `15 to 28 °C, fed by the sun, no network, at most 24 dB(A)`: what is out of the ordinary. */
export function placeWords(place: Place): string {
  const told = [
    `${bare(place.ambient_min_c, "°C")} to ${figure(place.ambient_max_c, "°C")}`,
    place.sun_w_m2 ? `${place.sun_w_m2} W/m² of sun` : "",
    place.wet ? "water reaches it" : "",
    { clean: "", some: "some dust", much: "much dust" }[place.dust],
    FED_BY[place.power],
    NETWORK[place.network],
    place.noise_max_dba ? `at most ${place.noise_max_dba} dB(A) at 1 m` : "",
  ];
  return told.filter(Boolean).join(", ");
}

/** What choosing a place means for the first kit, a sentence each. */
export function placeMeans(place: Place): string[] {
  const power: Record<NonNullable<Place["power"]>, string> = {
    mains: "",
    network: "It is fed by the network lead: only splitters for network power are taken.",
    vehicle: "It is fed from the vehicle: only converters for one are taken.",
    battery: "It is fed by a battery: only supplies that hold one are taken.",
    sun: "It is fed by the sun: only supplies with a panel are taken.",
  };
  const means = [
    place.wet ? "Water reaches it: only cases against splashing water are taken." : "",
    place.dust === "some" ? "There is some dust: a fan will want cleaning." : "",
    place.dust === "much" ? "There is much dust: only cases protected against it are taken." : "",
    power[place.power],
    place.network === "radio" ? "There is no network socket: it joins by radio, if at all." : "",
    place.network === "none" ? "There is no network: what it records stays on it." : "",
  ];
  return means.filter(Boolean);
}
