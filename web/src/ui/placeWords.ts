/** A place in words: what it has, and what that means for the choice of parts. Pure. */
import type { KnownPlace } from "../api/types";
import { bare, figure } from "./numbers";

type Place = KnownPlace["place"];

const FED_BY: Record<NonNullable<Place["power"]>, string> = {
  mains: "",
  poe: "powered over Ethernet (PoE)",
  vehicle: "powered by a vehicle",
  battery: "battery-powered",
  solar: "solar-powered",
  machine: "powered by another machine",
};

const NETWORK: Record<NonNullable<Place["network"]>, string> = {
  both: "",
  ethernet: "Ethernet only",
  wifi: "Wi-Fi only",
  none: "no network",
};

/** `15 to 28 °C, fed by the sun, no network, at most 24 dB(A)`: what is out of the ordinary. */
export function placeWords(place: Place): string {
  const told = [
    `${bare(place.ambient_min_c, "°C")} to ${figure(place.ambient_max_c, "°C")}`,
    place.sun_w_m2 ? `${place.sun_w_m2} W/m² of sun` : "",
    place.wet ? "wet" : "",
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
    poe: "Only PoE splitters are offered as the power supply.",
    vehicle: "Only vehicle converters are offered as the power supply.",
    battery: "Only power supplies with a battery are offered.",
    solar: "Only power supplies with a solar panel are offered.",
    machine: "The kit is powered by a USB port of another machine.",
  };
  const means = [
    place.wet ? "The location is wet. Only splash-proof cases are offered." : "",
    place.dust === "some" ? "The location is dusty. Clean the fan regularly." : "",
    place.dust === "much"
      ? "The location is very dusty. Only dust-protected cases are offered."
      : "",
    power[place.power],
    place.network === "wifi" ? "The location has no Ethernet. The kit uses Wi-Fi." : "",
    place.network === "none" ? "The location has no network. Data stays in the kit." : "",
  ];
  return means.filter(Boolean);
}
