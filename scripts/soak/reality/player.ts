import { playPart, type Part } from "./reality";

// One process of several: plays the parts it is handed, until nobody hands it any.
process.on("message", (part: Part) => process.send!(playPart(part)));
