import type { Schemas } from "../../api/client";

/** The device types that can be put into a circuit, by id. */
export type Library = Schemas["DeviceTypeOut"];
