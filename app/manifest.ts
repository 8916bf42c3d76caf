import type { MetadataRoute } from "next";

/** A tablet keeps the shop among its apps and opens it without the browser's bars. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Iridel",
    short_name: "Iridel",
    description: "Sets out, proves and records the recalibration of a vehicle’s cameras.",
    start_url: "/",
    display: "standalone",
    background_color: "#f5f2eb",
    theme_color: "#f5f2eb",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
  };
}
